import { NewExport } from "@/contracts/api";
import { db } from "@/server/db";
import { listExports, requestExport } from "@/server/exports/exports";
import { readBody, readId, route } from "@/server/http";

export const GET = route<{ id: string }>(async (_request, { id }) => Response.json(await listExports(db(), readId(id))));

export const POST = route<{ id: string }>(async (request, { id }) => {
  const { settings, revision } = await readBody(request, NewExport);
  return Response.json(await requestExport(db(), readId(id), revision, settings), { status: 201 });
});
