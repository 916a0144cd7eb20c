import { PrintChange } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, route } from "@/server/http";
import { changePrint } from "@/server/prints/prints";

export const PATCH = route<{ id: string }>(async (request, { id }) =>
  Response.json(await changePrint(db(), readId(id), await readBody(request, PrintChange))),
);
