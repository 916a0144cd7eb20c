import { LevelRequest } from "@/contracts/api";
import { db } from "@/server/db";
import { readInput } from "@/server/body";
import { readId, routes } from "@/server/http";
import { readLevel } from "@/server/pictures/readLevel";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  /** A rectangle of a picture's levels, as stored: interleaved RGB, little-endian at 16 bits; or the grain inside its pixels. */
  GET: async (request, { id }) => {
    const query = Object.fromEntries(new URL(request.url).searchParams);
    const bytes = await readLevel(db(), readId(id), readInput(query, LevelRequest));
    return new Response(bytes, {
      headers: { "content-type": "application/octet-stream", "cache-control": "private, max-age=31536000, immutable" },
    });
  },
});
