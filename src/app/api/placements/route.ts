import { SavedPlacement } from "@/contracts/api";
import { db } from "@/server/db";
import { A_FEW_KILOBYTES, readBody } from "@/server/body";
import { routes } from "@/server/http";
import { insertSaved, listSaved, PLACEMENTS } from "@/server/saved/saved";

export const { GET, POST, PUT, PATCH, DELETE } = routes({
  GET: async () => Response.json(await listSaved(db(), PLACEMENTS)),
  POST: async (request) =>
    Response.json(await insertSaved(db(), PLACEMENTS, await readBody(request, SavedPlacement, A_FEW_KILOBYTES)), { status: 201 }),
});
