import { PictureChange } from "@/contracts/api";
import { deleteForGood } from "@/server/bin/bin";
import { db } from "@/server/db";
import { readBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { changePicture } from "@/server/pictures/pictures";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  PATCH: async (request, { id }) => Response.json(await changePicture(db(), readId(id), await readBody(request, PictureChange))),
  /** For good: of the bin alone. */
  DELETE: async (_request, { id }) => {
    await deleteForGood(db(), { picture: readId(id) });
    return new Response(null, { status: 204 });
  },
});
