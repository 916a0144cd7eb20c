import type { Grid } from "../spatial/grid";
import type { PictureShape } from "./region";
import { pictureLevels } from "./pictureLevels";

/**
 * An imported picture laid over a part of the whole: each pixel gets the mean over its area of the levels read straight between their
 * middles, so that it is the same at any size, however fine its own pixels are.
 *
 * Shape   a value of 0–1 for each pixel of the grid.
 */
export function layPicture(shape: PictureShape, grid: Grid): Float32Array {
  const levels = pictureLevels(shape);
  const across = spans(shape.width, grid.whole.width, grid.x, grid.width);
  const down = spans(shape.height, grid.whole.height, grid.y, grid.height);
  const out = new Float32Array(grid.width * grid.height);
  const row = new Float64Array(shape.width);
  down.forEach(({ first, weights }, y) => {
    row.fill(0);
    weights.forEach((weight, k) => {
      for (let x = 0, at = (first + k) * shape.width; x < row.length; x++, at++) row[x] = row[x]! + weight * levels[at]!;
    });
    for (let x = 0, i = y * grid.width; x < grid.width; x++, i++) {
      const { first: left, weights: parts } = across[x]!;
      let sum = 0;
      for (let k = 0; k < parts.length; k++) sum += parts[k]! * row[left + k]!;
      out[i] = sum;
    }
  });
  return out;
}

/** Which cells a pixel reads, and how much of each. */
interface Span {
  first: number;
  weights: number[];
}

/** The mean over each pixel of a straight line from cell to cell, level beyond the first and the last. */
function spans(cells: number, whole: number, from: number, count: number): Span[] {
  const step = cells / whole;
  return Array.from({ length: count }, (_, i) => {
    // In cells, from the middle of the first.
    const [begin, end] = [(from + i) * step - 0.5, (from + i + 1) * step - 0.5];
    const inside = (at: number) => Math.min(Math.max(at, 0), cells - 1);
    const [first, last] = [inside(Math.floor(begin)), inside(Math.ceil(end))];
    const weights = Array.from({ length: last - first + 1 }, (_, k) => {
      const cell = first + k;
      const low = cell === 0 ? -Infinity : cell - 1;
      const high = cell === cells - 1 ? Infinity : cell + 1;
      return (hatUpTo(end, cell, low, high) - hatUpTo(begin, cell, low, high)) / step;
    });
    return { first, weights };
  });
}

/** The integral up to a place of how much a cell counts: 1 at its middle, straight down to 0 at its neighbours', 1 on beyond an end. */
function hatUpTo(at: number, cell: number, low: number, high: number): number {
  const rise = Math.max(Math.min(at, cell) - Math.max(low, cell - 1), 0);
  const rising = low === -Infinity ? Math.min(at, cell) - cell : (rise * rise) / 2;
  const beyond = Math.max(at - cell, 0);
  const fall = Math.min(beyond, 1);
  return rising + (high === Infinity ? beyond : fall - (fall * fall) / 2);
}
