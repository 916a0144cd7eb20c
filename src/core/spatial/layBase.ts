import type { Grid } from "../region/grid";
import type { ToneBase } from "./toneBase";

/**
 * A small plane of the whole picture laid over a part of it at any size: read between the middles of its cells, slope · guide + offset.
 *
 * Shape   guide and result: a value for each pixel of the grid. Units: kept within 0–1.
 */
export function layBase({ width, height, slope, offset }: ToneBase, grid: Grid, guide: Float32Array | undefined): Float32Array {
  const out = new Float32Array(grid.width * grid.height);
  const [stepX, stepY] = [width / grid.whole.width, height / grid.whole.height];
  for (let y = 0, i = 0; y < grid.height; y++) {
    const row = Math.min(Math.max((grid.y + y + 0.5) * stepY - 0.5, 0), height - 1);
    const [top, down] = [Math.floor(row), row - Math.floor(row)];
    const [upper, lower] = [top * width, Math.min(top + 1, height - 1) * width];
    for (let x = 0; x < grid.width; x++, i++) {
      const column = Math.min(Math.max((grid.x + x + 0.5) * stepX - 0.5, 0), width - 1);
      const [left, along] = [Math.floor(column), column - Math.floor(column)];
      const right = Math.min(left + 1, width - 1);
      const read = (cells: Float32Array) => {
        const above = cells[upper + left]! + along * (cells[upper + right]! - cells[upper + left]!);
        const below = cells[lower + left]! + along * (cells[lower + right]! - cells[lower + left]!);
        return above + down * (below - above);
      };
      const value = slope && guide ? read(slope) * guide[i]! + read(offset) : read(offset);
      out[i] = Math.min(Math.max(value, 0), 1);
    }
  }
  return out;
}
