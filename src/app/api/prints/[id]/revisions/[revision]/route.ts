import { readId, routes } from "@/server/http";
import { readRevisionJson } from "@/server/prints/planWork";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string; revision: string }>({
  GET: async (_request, { id, revision }) =>
    new Response(await readRevisionJson(readId(id), readId(revision)), { headers: { "content-type": "application/json" } }),
});
