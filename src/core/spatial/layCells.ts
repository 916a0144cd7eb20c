import type { Grid } from "./grid";
import type { Size } from "./areaReduce";

/**
 * Weights of the six cells around a place a part `u` on from the third: a cubic B-spline over cells sharpened by a sixth of their second
 * difference.
 * Slopes and bends run on from cell to cell, and any cubic is met exactly, so that a smooth plane read between its cells errs by a few
 * hundredths of its fourth difference.
 *
 * Source  quasi-interpolation by splines: de Boor, "A practical guide to splines" (1978), XII; Blu & Unser (1999).
 */
function sixWeights(u: number, out: Float64Array): void {
  const v = 1 - u;
  const [a, b, c, d] = [(v * v * v) / 6, (4 - 6 * u * u + 3 * u * u * u) / 6, (4 - 6 * v * v + 3 * v * v * v) / 6, (u * u * u) / 6];
  out[0] = -a / 6;
  out[1] = (8 * a - b) / 6;
  out[2] = (8 * b - a - c) / 6;
  out[3] = (8 * c - b - d) / 6;
  out[4] = (8 * d - c) / 6;
  out[5] = -d / 6;
}

const weights = new Float64Array(6);

/**
 * A row of a small plane at a place between its rows, straight on beyond the first and the last.
 *
 * Shape   `row` counts from the middle of the first row; writes `size.width` numbers to `out` from `at` on.
 */
function rowBetween(cells: Float32Array, { width, height }: Size, row: number, out: Float64Array, at = 0): void {
  const first = Math.min(Math.max(Math.floor(row), 0), height - 1);
  sixWeights(Math.min(Math.max(row - first, -1), 2), weights);
  if (first >= 2 && first + 3 < height) return sumOfSix(cells, (first - 2) * width, width, out, at);
  out.fill(0, at, at + width);
  for (let k = 0; k < 6; k++) {
    const line = first + k - 2;
    // Beyond the ends the plane goes straight on: 2 · end − the cell as far inside.
    if (line >= 0 && line < height) addRow(out, at, cells, line * width, width, weights[k]!);
    else {
      const end = line < 0 ? 0 : height - 1;
      const inside = Math.min(Math.max(2 * end - line, 0), height - 1);
      addRow(out, at, cells, end * width, width, 2 * weights[k]!);
      addRow(out, at, cells, inside * width, width, -weights[k]!);
    }
  }
}

/** Six rows that lie under one another, by their weights. */
function sumOfSix(cells: Float32Array, from: number, width: number, out: Float64Array, at: number): void {
  const [w0, w1, w2, w3, w4, w5] = weights as unknown as [number, number, number, number, number, number];
  for (let x = 0, i = from; x < width; x++, i++) {
    out[at + x] =
      w0 * cells[i]! +
      w1 * cells[i + width]! +
      w2 * cells[i + 2 * width]! +
      w3 * cells[i + 3 * width]! +
      w4 * cells[i + 4 * width]! +
      w5 * cells[i + 5 * width]!;
  }
}

function addRow(out: Float64Array, at: number, cells: Float32Array, from: number, width: number, weight: number): void {
  for (let x = 0; x < width; x++) out[at + x] = out[at + x]! + weight * cells[from + x]!;
}

/** Cells beyond each end of a row that its spline looks at. */
const MARGIN = 3;

/**
 * A small plane of the whole picture read over a part of it at any size, smoothly between the middles of its cells.
 *
 * Shape   cells of `size`; a value for each pixel of the grid. They divide the picture evenly each way, or, where `square` tells their
 *         grid, are
 *         square and lie a little beyond it too.
 */
export function layCells(cells: Float32Array, size: Size, grid: Grid, square?: Pick<Grid, "x" | "y" | "scale">): Float32Array {
  const { width, height } = size;
  const out = new Float32Array(grid.width * grid.height);
  const [stepX, stepY] = square
    ? [square.scale / grid.scale, square.scale / grid.scale]
    : [width / grid.whole.width, height / grid.whole.height];
  const [firstX, firstY] = [square?.x ?? 0, square?.y ?? 0];
  const columns = columnsRead(grid.x, grid.width, stepX, firstX, width);
  const row = new Float64Array(width + 2 * MARGIN);
  const sharp = new Float64Array(width + 2 * MARGIN);
  for (let y = 0; y < grid.height; y++) {
    rowBetween(cells, size, Math.min(Math.max((grid.y + y + 0.5) * stepY - firstY - 0.5, -0.5), height - 0.5), row, MARGIN);
    extend(row, width);
    for (let x = 1; x < row.length - 1; x++) sharp[x] = (8 * row[x]! - row[x - 1]! - row[x + 1]!) / 6;
    layRow(sharp, columns, out, y * grid.width);
  }
  return out;
}

/** A row of sharpened cells as pixels, written from `from` on where nothing is yet: one cubic from cell to cell. */
function layRow(sharp: Float64Array, { parts, lefts, ends }: Columns, out: Float32Array, from: number): void {
  for (let k = 0, x = 0; k < lefts.length; k++) {
    const at = lefts[k]! + MARGIN;
    const end = ends[k]!;
    const p = sharp[at - 1]!;
    const q = sharp[at]!;
    const r = sharp[at + 1]!;
    const s = sharp[at + 2]!;
    // Most of a mask is level: nothing, or all.
    if (q === r && p === q && r === s) {
      if (q === 0) x = end;
      for (; x < end; x++) out[from + x] = q;
      continue;
    }
    const a = (p + 4 * q + r) / 6;
    const b = (r - p) / 2;
    const c = (p - 2 * q + r) / 2;
    const d = (s - p + 3 * (q - r)) / 6;
    for (; x < end; x++) {
      const u = parts[x]!;
      out[from + x] = a + u * (b + u * (c + u * d));
    }
  }
}

/** Where the pixels of a row lie among cells: stretches between the middles of the same two, and how far on each lies. */
interface Columns {
  parts: Float64Array;
  lefts: Int32Array;
  ends: Int32Array;
}

/** They are the same in every row, and in every band of an export: the last are kept. */
function columnsRead(...place: [from: number, pixels: number, step: number, firstCell: number, cells: number]): Columns {
  if (!lastRead?.place.every((value, i) => value === place[i])) lastRead = { place, columns: makeColumns(...place) };
  return lastRead.columns;
}
let lastRead: { place: readonly number[]; columns: Columns } | undefined;

function makeColumns(from: number, pixels: number, step: number, firstCell: number, cells: number): Columns {
  const parts = new Float64Array(pixels);
  const stretches: { left: number; end: number }[] = [];
  for (let x = 0; x < pixels; x++) {
    const column = Math.min(Math.max((from + x + 0.5) * step - firstCell - 0.5, -0.5), cells - 0.5);
    const left = Math.floor(column);
    parts[x] = column - left;
    const stretch = stretches.at(-1);
    if (stretch?.left === left) stretch.end = x + 1;
    else stretches.push({ left, end: x + 1 });
  }
  return { parts, lefts: Int32Array.from(stretches, ({ left }) => left), ends: Int32Array.from(stretches, ({ end }) => end) };
}

/** Carries a row straight on beyond both ends. */
function extend(row: Float64Array, width: number): void {
  const [first, last] = [MARGIN, MARGIN + width - 1];
  for (let k = 1; k <= MARGIN; k++) {
    row[first - k] = 2 * row[first]! - row[Math.min(first + k, last)]!;
    row[last + k] = 2 * row[last]! - row[Math.max(last - k, first)]!;
  }
}
