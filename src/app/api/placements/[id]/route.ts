import { PlacementChange } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, routes } from "@/server/http";
import { changePlacement } from "@/server/placements/placements";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  PATCH: async (request, { id }) => {
    await changePlacement(db(), readId(id), await readBody(request, PlacementChange));
    return new Response(null, { status: 204 });
  },
});
