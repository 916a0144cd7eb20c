import { RawLevels } from "@/engine/node/rawLevels";
import type { LevelRequest } from "@/contracts/api";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { pictureBlob } from "./pictures";
import { preparedFolder } from "./preparedFolder";

/** The levels of a rectangle, row after row. Errors: AppError `invalid_input` where it lies outside. */
export async function readLevel(
  sql: Sql,
  pictureId: string,
  { level, x, y, width, height }: LevelRequest,
): Promise<Uint8Array<ArrayBuffer>> {
  const { files } = await preparedFolder(sql, await pictureBlob(sql, pictureId));
  const layout = files[level];
  if (!layout || x + width > layout.width || y + height > layout.height) {
    throw new AppError("invalid_input", "this rectangle lies outside the picture");
  }
  const raw = new RawLevels(layout);
  try {
    const levels = raw.read(x, y, width, height);
    return new Uint8Array(levels.buffer as ArrayBuffer);
  } finally {
    raw.close();
  }
}
