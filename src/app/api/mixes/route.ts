import { SavedMix } from "@/contracts/api";
import { db } from "@/server/db";
import { A_FEW_KILOBYTES, readBody } from "@/server/body";
import { routes } from "@/server/http";
import { insertSaved, listSaved, MIXES } from "@/server/saved/saved";

export const { GET, POST, PUT, PATCH, DELETE } = routes({
  GET: async () => Response.json(await listSaved(db(), MIXES)),
  POST: async (request) =>
    Response.json(await insertSaved(db(), MIXES, await readBody(request, SavedMix, A_FEW_KILOBYTES)), { status: 201 }),
});
