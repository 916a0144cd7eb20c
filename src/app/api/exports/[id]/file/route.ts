import { EXPORT_FORMAT_FACTS } from "@/contracts/exportSettings";
import { blobFacts, blobStream } from "@/server/blobs/blobs";
import { byteRange } from "@/server/blobs/byteRange";
import { db } from "@/server/db";
import { exportBlob, getExport } from "@/server/exports/exports";
import { contentDisposition } from "@/server/exports/fileName";
import { readId, routes } from "@/server/http";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  /** A finished file; a download that was cut off goes on where it stopped. */
  GET: async (request, { id }) => {
    const status = await getExport(db(), readId(id));
    const blob = await exportBlob(db(), id);
    const { bytes, sha256 } = await blobFacts(db(), blob);
    const etag = `"${sha256}"`;
    const ifRange = request.headers.get("if-range");
    const range = ifRange === null || ifRange === etag ? byteRange(request.headers.get("range"), bytes) : undefined;
    const headers = {
      "content-type": EXPORT_FORMAT_FACTS[status.settings.format].mime,
      "content-disposition": contentDisposition(status.fileName),
      "accept-ranges": "bytes",
      etag,
    };
    if (range === "unsatisfiable") return new Response(null, { status: 416, headers: { ...headers, "content-range": `bytes */${bytes}` } });
    if (!range) return new Response(blobStream(db(), blob), { headers: { ...headers, "content-length": String(bytes) } });
    const { first, last } = range;
    return new Response(blobStream(db(), blob, range), {
      status: 206,
      headers: { ...headers, "content-length": String(last + 1 - first), "content-range": `bytes ${first}-${last}/${bytes}` },
    });
  },
});
