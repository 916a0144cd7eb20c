import { PictureChange } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody, readId, route } from "@/server/http";
import { changePicture } from "@/server/pictures/pictures";

export const PATCH = route<{ id: string }>(async (request, { id }) =>
  Response.json(await changePicture(db(), readId(id), await readBody(request, PictureChange))),
);
