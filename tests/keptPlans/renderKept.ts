import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import type { Plan } from "@/core/plan/plan";
import { cleanLevel } from "@/engine/node/cleanPicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { colourful } from "../madePictures";

export const KEPT_SIZE = { width: 48, height: 32 };

/** A long edge of a print made smaller: pixels that lie on no others. */
export const REDUCED_EDGE = 17;

/**
 * The 16-bit levels that a plan makes of a small made picture, in colour where it lays any, perhaps made smaller; `folder` for its file.
 */
export async function renderKept(plan: Plan, folder: string, longEdge?: number): Promise<Uint16Array> {
  const file = join(folder, "levels");
  writeFileSync(file, colourful(KEPT_SIZE.width, KEPT_SIZE.height));
  const layout = { file, offset: 0, ...KEPT_SIZE, depth: 16, space: SRGB_SPACE } as const;
  const cleaned = async () => ({ full: cleanLevel(layout, `${file}.clean`) });
  return (await renderPicture(layout, plan, { depth: 16, threads: 1, cleaned, space: "srgb", longEdge })).levels as Uint16Array;
}
