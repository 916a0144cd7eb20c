import { PlacementChange } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, route } from "@/server/http";
import { changePlacement } from "@/server/placements/placements";

export const PATCH = route<{ id: string }>(async (request, { id }) => {
  await changePlacement(db(), readId(id), await readBody(request, PlacementChange));
  return new Response(null, { status: 204 });
});
