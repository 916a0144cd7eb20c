import { SavedChange } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { changeSaved, PLACEMENTS } from "@/server/saved/saved";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  PATCH: async (request, { id }) => {
    await changeSaved(db(), PLACEMENTS, readId(id), await readBody(request, SavedChange));
    return new Response(null, { status: 204 });
  },
});
