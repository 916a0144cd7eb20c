import { SavedPlacement } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, routes } from "@/server/http";
import { insertPlacement, listPlacements } from "@/server/placements/placements";

export const { GET, POST, PUT, PATCH, DELETE } = routes({
  GET: async () => Response.json(await listPlacements(db())),
  POST: async (request) => Response.json(await insertPlacement(db(), await readBody(request, SavedPlacement)), { status: 201 }),
});
