import { scratchHeap, type KernelHeap } from "../kernels/kernelHeap";

/**
 * A run of rows of a reduced plane: each new pixel is the mean of the source area it covers, with
 * exact part coverage at its borders. Linear light in, linear light out, so that small and large agree.
 *
 * Shape   `rows` holds source rows from `firstSourceRow` on, of `size.width` each; returns output rows
 *         `from` up to `to` of `reduced.width` each. `rowsNeeded` says which source rows to give.
 * Cost    one visit of each source pixel.
 */
export function areaReduceRows(
  rows: Float32Array,
  firstSourceRow: number,
  size: Size,
  reduced: Size,
  from: number,
  to: number,
): Float32Array {
  if (size.width === 2 * reduced.width && size.height === 2 * reduced.height)
    return halveRows(rows, firstSourceRow, reduced.width, from, to);
  const width = (size.width + 3) & ~3;
  const heap = scratchHeap(8 * width + 20 * reduced.width);
  const [sums, row] = [heap.reserve(4 * width), heap.reserve(4 * width)];
  const [columns, narrow] = [laidCoverage(heap, size.width, reduced.width), heap.reserve(4 * reduced.width)];
  const out = new Float32Array(reduced.width * (to - from));
  for (let y = from; y < to; y++) {
    heap.f32(sums, width).fill(0);
    for (const { row: covered, weight } of coveredRows(size.height, reduced.height, y)) {
      const at = (covered - firstSourceRow) * size.width;
      heap.f32(row, size.width).set(rows.subarray(at, at + size.width));
      heap.run.addRow(sums, row, width, weight);
    }
    reduceRow(heap, sums, columns, narrow);
    out.set(heap.f32(narrow, reduced.width), (y - from) * reduced.width);
  }
  return out;
}

/** The source rows that a reduced row covers, and how much of it each is. */
export function coveredRows(height: number, reducedHeight: number, y: number): { row: number; weight: number }[] {
  const scale = height / reducedHeight;
  const top = y * scale;
  const bottom = Math.min((y + 1) * scale, height);
  const first = Math.floor(top);
  return Array.from({ length: Math.ceil(bottom) - first }, (_, i) => {
    const row = first + i;
    return { row, weight: (Math.min(bottom, row + 1) - Math.max(top, row)) / (bottom - top) };
  });
}

/** The same where both edges are exactly halved, as most levels are. */
export function halveRows(rows: Float32Array, firstSourceRow: number, width: number, from: number, to: number): Float32Array {
  const out = new Float32Array(width * (to - from));
  for (let y = from; y < to; y++) {
    const upper = (2 * y - firstSourceRow) * 2 * width;
    const lower = upper + 2 * width;
    const at = (y - from) * width;
    for (let x = 0; x < width; x++) {
      out[at + x] = 0.25 * (rows[upper + 2 * x]! + rows[upper + 2 * x + 1]! + rows[lower + 2 * x]! + rows[lower + 2 * x + 1]!);
    }
  }
  return out;
}

export interface Size {
  width: number;
  height: number;
}

/** First and one past the last source row that output rows `from` up to `to` are made of. */
export function rowsNeeded(size: Size, reduced: Size, from: number, to: number): { first: number; end: number } {
  const scale = size.height / reduced.height;
  return { first: Math.floor(from * scale), end: Math.min(Math.ceil(to * scale), size.height) };
}

/** The size with its long edge brought down to at most `longEdge`, at least 1 pixel each way; never enlarged. */
export function fitLongEdge({ width, height }: Size, longEdge: number): Size {
  const scale = Math.min(1, longEdge / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}

/** Where in a heap it lies for each reduced column which source columns it covers, and how much of the outermost two. */
export interface Coverage {
  first: number;
  end: number;
  leftPart: number;
  rightPart: number;
  /** Source columns to a reduced one. */
  scale: number;
  count: number;
}

/** Lays a coverage into a heap, 16 bytes for each reduced column. */
export function laidCoverage(heap: KernelHeap, width: number, count: number): Coverage {
  const scale = width / count;
  const [first, end] = [new Int32Array(count), new Int32Array(count)];
  const [leftPart, rightPart] = [new Float32Array(count), new Float32Array(count)];
  for (let x = 0; x < count; x++) {
    const left = x * scale;
    const right = Math.min((x + 1) * scale, width);
    first[x] = Math.floor(left);
    end[x] = Math.min(Math.ceil(right), width);
    leftPart[x] = Math.min(first[x]! + 1, right) - left;
    rightPart[x] = right - Math.max(end[x]! - 1, left);
  }
  return { first: heap.put(first), end: heap.put(end), leftPart: heap.put(leftPart), rightPart: heap.put(rightPart), scale, count };
}

/** A row in a heap brought down to fewer columns. */
export function reduceRow(
  { run }: KernelHeap,
  row: number,
  { first, end, leftPart, rightPart, count, scale }: Coverage,
  out: number,
): void {
  run.reduceColumns(row, first, end, leftPart, rightPart, out, count, scale);
}
