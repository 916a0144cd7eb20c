import { SavedPlacement } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, route } from "@/server/http";
import { insertPlacement, listPlacements } from "@/server/placements/placements";

export const GET = route(async () => Response.json(await listPlacements(db())));

export const POST = route(async (request) =>
  Response.json(await insertPlacement(db(), await readBody(request, SavedPlacement)), { status: 201 }),
);
