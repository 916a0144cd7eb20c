import { patchesOf, type Patch } from "../region/patches";
import type { Size } from "../spatial/areaReduce";
import { boxBlur } from "../spatial/boxBlur";

/** A place is bright where it is lighter than this … */
const LEAST_TONE = 0.62;
/** … and lighter than what lies around it by this: a zone. */
const LEAST_EXCESS = 0.1;
/** Its surroundings, as a part of the long edge. */
const AROUND = 0.08;
/** Smaller than this part of the picture nothing draws the eye. */
const LEAST_SHARE = 0.0004;
const MOST_NAMED = 6;

/**
 * Patches that are much lighter than what lies around them and touch the frame, where they lead the eye out of the picture; the
 * largest first.
 *
 * Shape   tone of `size`, 0–1.  Source: our own measure, docs/decisions/0011-seeing-handwork.md.
 */
export function brightAtFrame(tone: Float32Array, size: Size): Patch[] {
  const { width, height } = size;
  const around = boxBlur(tone, size, AROUND * Math.max(width, height));
  const isBright = (i: number) => tone[i]! >= LEAST_TONE && tone[i]! - around[i]! >= LEAST_EXCESS;
  const touches = (i: number) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    return x === 0 || y === 0 || x === width - 1 || y === height - 1;
  };
  return patchesOf(isBright, size)
    .filter(({ cells }) => cells.length >= LEAST_SHARE * width * height && cells.some(touches))
    .slice(0, MOST_NAMED);
}
