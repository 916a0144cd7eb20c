import { HeadMove } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, route } from "@/server/http";
import { moveHead } from "@/server/prints/prints";

export const PUT = route<{ id: string }>(async (request, { id }) => {
  await moveHead(db(), readId(id), await readBody(request, HeadMove));
  return new Response(null, { status: 204 });
});
