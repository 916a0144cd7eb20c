import { NewRevision } from "@/contracts/api";
import { db } from "@/server/db";
import { A_PLAN, readBody, readId, routes } from "@/server/http";
import { appendRevision } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    await appendRevision(db(), readId(id), await readBody(request, NewRevision, A_PLAN));
    return new Response(null, { status: 204 });
  },
});
