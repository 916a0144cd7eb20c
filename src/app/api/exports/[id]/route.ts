import { db } from "@/server/db";
import { cancelExport, getExport } from "@/server/exports/exports";
import { readId, routes } from "@/server/http";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  GET: async (_request, { id }) => Response.json(await getExport(db(), readId(id))),
  /** Cancels; a finished export stays. */
  DELETE: async (_request, { id }) => Response.json(await cancelExport(db(), readId(id))),
});
