import { A_PLAN, readGuarded } from "@/server/body";
import { readId, routes } from "@/server/http";
import { planWork } from "@/server/prints/planWork";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    const body = await readGuarded(request, A_PLAN);
    return Response.json(await planWork({ kind: "add", pictureId: readId(id), body }), { status: 201 });
  },
});
