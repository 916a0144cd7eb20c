import { PrintChange } from "@/contracts/api";
import { deleteForGood } from "@/server/bin/bin";
import { db } from "@/server/db";
import { A_FEW_KILOBYTES, readBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { changePrint } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  PATCH: async (request, { id }) =>
    Response.json(await changePrint(db(), readId(id), await readBody(request, PrintChange, A_FEW_KILOBYTES))),
  /** For good: of the bin alone. */
  DELETE: async (_request, { id }) => {
    await deleteForGood(db(), { print: readId(id) });
    return new Response(null, { status: 204 });
  },
});
