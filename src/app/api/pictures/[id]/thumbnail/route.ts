import { db } from "@/server/db";
import { readId, routes } from "@/server/http";
import { pictureThumbnail } from "@/server/prints/thumbnail";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  /** A small JPEG of the picture in its own colours. */
  GET: async (_request, { id }) => {
    const jpeg = await pictureThumbnail(db(), readId(id));
    return new Response(jpeg, { headers: { "content-type": "image/jpeg", "cache-control": "private, max-age=31536000, immutable" } });
  },
});
