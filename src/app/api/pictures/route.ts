import { db } from "@/server/db";
import { AppError } from "@/server/errors";
import { route } from "@/server/http";
import { importPicture } from "@/server/pictures/pictures";

/** Brings one picture in: the file's bytes as the body, its name as ?name=. */
export const POST = route(async (request) => {
  const name = new URL(request.url).searchParams.get("name") ?? "";
  if (!request.body) throw new AppError("invalid_input", "the request carries no file");
  const imported = await importPicture(db(), name, request.body as unknown as AsyncIterable<Uint8Array>);
  return Response.json(imported, { status: 201 });
});
