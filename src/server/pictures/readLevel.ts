import { RawLevels } from "@/engine/node/rawLevels";
import type { LevelRequest } from "@/contracts/api";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { pictureBlob } from "./pictures";
import { cleanedLevels, preparedFolder } from "./preparedFolder";

/** The levels of a rectangle, or its grain, row after row. Errors: AppError `invalid_input` where it lies outside or has none. */
export async function readLevel(
  sql: Sql,
  pictureId: string,
  { level, x, y, width, height, of }: LevelRequest,
): Promise<Uint8Array<ArrayBuffer>> {
  const blobId = await pictureBlob(sql, pictureId);
  const files = of.startsWith("clean") ? await cleanedLevels(sql, blobId) : (await preparedFolder(sql, blobId)).files;
  const layout = files[level];
  if (!layout || x + width > layout.width || y + height > layout.height) {
    throw new AppError("invalid_input", "this rectangle lies outside the picture");
  }
  const raw = new RawLevels(layout);
  try {
    const levels = of.endsWith("grain") ? raw.readGrain(x, y, width, height) : raw.read(x, y, width, height);
    if (!levels) throw new AppError("invalid_input", "the full size has no grain of its own");
    return new Uint8Array(levels.buffer as ArrayBuffer);
  } finally {
    raw.close();
  }
}
