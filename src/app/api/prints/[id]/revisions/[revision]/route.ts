import { db } from "@/server/db";
import { readId, route } from "@/server/http";
import { getRevision } from "@/server/prints/prints";

export const GET = route<{ id: string; revision: string }>(async (_request, { id, revision }) =>
  Response.json(await getRevision(db(), readId(id), readId(revision))),
);
