import { NewRevision } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, route } from "@/server/http";
import { appendRevision } from "@/server/prints/prints";

export const POST = route<{ id: string }>(async (request, { id }) => {
  await appendRevision(db(), readId(id), await readBody(request, NewRevision));
  return new Response(null, { status: 204 });
});
