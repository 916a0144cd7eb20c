import { A_PLAN, withBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { addPrintFrom } from "@/server/prints/planWork";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    const pictureId = readId(id);
    const made = await withBody(request, A_PLAN, (body) => addPrintFrom(pictureId, body));
    return Response.json(made, { status: 201 });
  },
});
