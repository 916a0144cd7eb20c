import { A_PLAN, withBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { planWork } from "@/server/prints/planWork";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    const printId = readId(id);
    await withBody(request, A_PLAN, (body) => planWork({ kind: "append", printId, body }));
    return new Response(null, { status: 204 });
  },
});
