import { EXPORT_FORMAT_FACTS } from "@/contracts/exportSettings";
import { blobStream } from "@/server/blobs/blobs";
import { db } from "@/server/db";
import { exportBlob, getExport } from "@/server/exports/exports";
import { readId, route } from "@/server/http";

export const GET = route<{ id: string }>(async (_request, { id }) => {
  const status = await getExport(db(), readId(id));
  const stream = blobStream(db(), await exportBlob(db(), id));
  return new Response(stream, {
    headers: {
      "content-type": EXPORT_FORMAT_FACTS[status.settings.format].mime,
      "content-length": String(status.bytes),
      "content-disposition": `attachment; filename="${status.fileName}"`,
    },
  });
});
