import { db } from "@/server/db";
import { readId, routes } from "@/server/http";
import { getRevision } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string; revision: string }>({
  GET: async (_request, { id, revision }) => Response.json(await getRevision(db(), readId(id), readId(revision))),
});
