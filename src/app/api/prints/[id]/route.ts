import { PrintChange } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, routes } from "@/server/http";
import { changePrint } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  PATCH: async (request, { id }) => Response.json(await changePrint(db(), readId(id), await readBody(request, PrintChange))),
});
