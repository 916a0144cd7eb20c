import { SavedPlacement } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, routes } from "@/server/http";
import { insertSaved, listSaved, PLACEMENTS } from "@/server/saved/saved";

export const { GET, POST, PUT, PATCH, DELETE } = routes({
  GET: async () => Response.json(await listSaved(db(), PLACEMENTS)),
  POST: async (request) => Response.json(await insertSaved(db(), PLACEMENTS, await readBody(request, SavedPlacement)), { status: 201 }),
});
