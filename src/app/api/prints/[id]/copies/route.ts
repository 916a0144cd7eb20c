import { db } from "@/server/db";
import { readId, routes } from "@/server/http";
import { copyPrint } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (_request, { id }) => Response.json(await copyPrint(db(), readId(id)), { status: 201 }),
});
