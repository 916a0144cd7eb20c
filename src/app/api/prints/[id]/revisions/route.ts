import { A_PLAN, withBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { appendFrom } from "@/server/prints/planWork";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    const printId = readId(id);
    await withBody(request, A_PLAN, (body) => appendFrom(printId, body));
    return new Response(null, { status: 204 });
  },
});
