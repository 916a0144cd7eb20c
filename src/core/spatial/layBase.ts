import type { Grid } from "../region/grid";
import type { ToneBase } from "./toneBase";

/**
 * A small plane of the whole picture laid over a part of it at any size: read between the middles of its cells, slope · guide + offset.
 *
 * Shape   guide and result: a value for each pixel of the grid. Units: with a slope kept within 0–1, else those of the plane.
 */
export function layBase({ width, height, slope, offset }: ToneBase, grid: Grid, guide: Float32Array | undefined): Float32Array {
  const out = layPlane(offset, { width, height }, grid);
  if (!slope || !guide) return out;
  const slopes = layPlane(slope, { width, height }, grid);
  for (let i = 0; i < out.length; i++) out[i] = Math.min(Math.max(slopes[i]! * guide[i]! + out[i]!, 0), 1);
  return out;
}

function layPlane(cells: Float32Array, { width, height }: { width: number; height: number }, grid: Grid): Float32Array {
  const out = new Float32Array(grid.width * grid.height);
  const [stepX, stepY] = [width / grid.whole.width, height / grid.whole.height];
  // The columns read are the same in every row: stretches of pixels between the middles of the same two cells.
  const alongs = new Float64Array(grid.width);
  const stretches: { left: number; right: number; end: number }[] = [];
  for (let x = 0; x < grid.width; x++) {
    const column = Math.min(Math.max((grid.x + x + 0.5) * stepX - 0.5, 0), width - 1);
    const left = Math.floor(column);
    alongs[x] = column - left;
    const stretch = stretches.at(-1);
    if (stretch?.left === left) stretch.end = x + 1;
    else stretches.push({ left, right: Math.min(left + 1, width - 1), end: x + 1 });
  }
  const between = new Float64Array(width);
  for (let y = 0, i = 0; y < grid.height; y++) {
    const row = Math.min(Math.max((grid.y + y + 0.5) * stepY - 0.5, 0), height - 1);
    const [top, down] = [Math.floor(row), row - Math.floor(row)];
    const [upper, lower] = [top * width, Math.min(top + 1, height - 1) * width];
    for (let x = 0; x < width; x++) between[x] = cells[upper + x]! + down * (cells[lower + x]! - cells[upper + x]!);
    let x = 0;
    for (const { left, right, end } of stretches) {
      const [from, rise] = [between[left]!, between[right]! - between[left]!];
      for (; x < end; x++, i++) out[i] = from + alongs[x]! * rise;
    }
  }
  return out;
}
