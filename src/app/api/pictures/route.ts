import { db } from "@/server/db";
import { SheetRequest } from "@/contracts/contactSheet";
import { readBytes, readInput } from "@/server/body";
import { routes } from "@/server/http";
import { needRoom } from "@/server/space";
import { readSheet } from "@/server/pictures/contactSheet";
import { importPicture } from "@/server/pictures/pictures";

export const { GET, POST, PUT, PATCH, DELETE } = routes({
  /** A page of the contact sheet. */
  GET: async (request) => {
    const asked = readInput(Object.fromEntries(new URL(request.url).searchParams), SheetRequest);
    return Response.json(await readSheet(db(), asked));
  },
  /** Brings one picture in: the file's bytes as the body, its name as ?name=. */
  POST: async (request) => {
    const name = new URL(request.url).searchParams.get("name") ?? "";
    await needRoom("The import");
    const imported = await importPicture(db(), name, readBytes(request));
    return Response.json(imported, { status: 201 });
  },
});
