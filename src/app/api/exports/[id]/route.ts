import { db } from "@/server/db";
import { cancelExport, getExport } from "@/server/exports/exports";
import { readId, route } from "@/server/http";

export const GET = route<{ id: string }>(async (_request, { id }) => Response.json(await getExport(db(), readId(id))));

/** Cancels; a finished export stays. */
export const DELETE = route<{ id: string }>(async (_request, { id }) => Response.json(await cancelExport(db(), readId(id))));
