import { join } from "node:path";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import type { RawLayout } from "./rawLevels";
import { reduceLevel } from "./reduceLevel";

/** Long edge of the preview level, in pixels: about 1.1 megapixels, what the bench works on while a hand moves. */
const PREVIEW_LONG_EDGE = 1280;

/** Smaller levels of a full one, halves down to twice the preview and the preview itself, in files of a folder. */
export function smallerLevels(full: RawLayout, folder: string): RawLayout[] {
  const levels: RawLayout[] = [];
  let halved = full;
  for (let k = 1; longEdge(halved) > 2 * PREVIEW_LONG_EDGE; k++) {
    halved = reduceLevel(halved, fitLongEdge(full, longEdge(full) / 2 ** k), join(folder, `half-${k}.raw`));
    levels.push(halved);
  }
  if (longEdge(full) > PREVIEW_LONG_EDGE) {
    levels.push(reduceLevel(halved, fitLongEdge(full, PREVIEW_LONG_EDGE), join(folder, "preview.raw")));
  }
  return levels;
}

/** The picture no larger than a preview, in a file beside it where it has to be made. */
export function overviewOf(layout: RawLayout): RawLayout {
  const size = fitLongEdge(layout, PREVIEW_LONG_EDGE);
  return size.width === layout.width ? layout : reduceLevel(layout, size, `${layout.file}.overview`);
}

function longEdge({ width, height }: Size): number {
  return Math.max(width, height);
}
