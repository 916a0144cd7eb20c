import { NewExport } from "@/contracts/api";
import { db } from "@/server/db";
import { listExports, requestExport } from "@/server/exports/exports";
import { needRoom } from "@/server/space";
import { readBody } from "@/server/body";
import { readId, routes } from "@/server/http";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  GET: async (_request, { id }) => Response.json(await listExports(db(), readId(id))),
  POST: async (request, { id }) => {
    const { settings, revision } = await readBody(request, NewExport);
    await needRoom("The export");
    return Response.json(await requestExport(db(), readId(id), revision, settings), { status: 201 });
  },
});
