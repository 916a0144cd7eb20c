import type { Grid } from "./grid";
import { layCells } from "./layCells";
import type { ToneBase } from "./toneBase";

/**
 * A small plane of the whole picture laid over a part of it at any size: slope · guide + offset, each read smoothly between its cells.
 *
 * Shape   guide and result: a value for each pixel of the grid. Units: 0–1, and kept there.
 */
export function layBase({ width, height, slope, offset, square }: ToneBase, grid: Grid, guide: Float32Array | undefined): Float32Array {
  const out = layCells(offset, { width, height }, grid, square);
  const slopes = slope && guide && layCells(slope, { width, height }, grid, square);
  for (let i = 0; i < out.length; i++) {
    const value = slopes ? slopes[i]! * guide[i]! + out[i]! : out[i]!;
    out[i] = Math.min(Math.max(value, 0), 1);
  }
  return out;
}
