import { A_PLAN, readGuarded } from "@/server/body";
import { readId, routes } from "@/server/http";
import { planWork } from "@/server/prints/planWork";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    await planWork({ kind: "append", printId: readId(id), body: await readGuarded(request, A_PLAN) });
    return new Response(null, { status: 204 });
  },
});
