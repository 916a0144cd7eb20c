import { LevelRequest } from "@/contracts/api";
import { db } from "@/server/db";
import { readId, readInput, route } from "@/server/http";
import { readLevel } from "@/server/pictures/readLevel";

/** A rectangle of a picture's levels, as stored: interleaved RGB, little-endian at 16 bits; or the grain inside its pixels. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const bytes = await readLevel(db(), readId(id), readInput(query, LevelRequest));
  return new Response(bytes, {
    headers: { "content-type": "application/octet-stream", "cache-control": "private, max-age=31536000, immutable" },
  });
});
