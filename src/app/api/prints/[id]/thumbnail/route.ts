import { db } from "@/server/db";
import { readId, routes } from "@/server/http";
import { printThumbnail } from "@/server/prints/thumbnail";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  /** A small JPEG of the print as it stands; ?revision= in the address keeps it apart in caches. */
  GET: async (_request, { id }) => {
    const jpeg = await printThumbnail(db(), readId(id));
    return new Response(jpeg, { headers: { "content-type": "image/jpeg", "cache-control": "private, max-age=31536000, immutable" } });
  },
});
