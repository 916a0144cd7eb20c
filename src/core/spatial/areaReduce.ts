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
  const columns = coverageOf(size.width, reduced.width);
  const out = new Float32Array(reduced.width * (to - from));
  const sums = new Float32Array(size.width);
  for (let y = from; y < to; y++) {
    sums.fill(0);
    for (const { row, weight } of coveredRows(size.height, reduced.height, y)) {
      addRow(sums, rows, (row - firstSourceRow) * size.width, weight);
    }
    reduceRow(sums, columns, out, (y - from) * reduced.width, reduced.width);
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

function addRow(sums: Float32Array, rows: Float32Array, at: number, weight: number): void {
  for (let x = 0; x < sums.length; x++) sums[x] = sums[x]! + weight * rows[at + x]!;
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

export interface Coverage {
  first: Int32Array;
  end: Int32Array;
  leftPart: Float32Array;
  rightPart: Float32Array;
  scale: number;
}

/** For each output column the source columns it covers, and how much of the outermost two. */
export function coverageOf(width: number, reducedWidth: number): Coverage {
  const scale = width / reducedWidth;
  const table: Coverage = {
    first: new Int32Array(reducedWidth),
    end: new Int32Array(reducedWidth),
    leftPart: new Float32Array(reducedWidth),
    rightPart: new Float32Array(reducedWidth),
    scale,
  };
  for (let x = 0; x < reducedWidth; x++) {
    const left = x * scale;
    const right = Math.min((x + 1) * scale, width);
    table.first[x] = Math.floor(left);
    table.end[x] = Math.min(Math.ceil(right), width);
    table.leftPart[x] = Math.min(table.first[x]! + 1, right) - left;
    table.rightPart[x] = right - Math.max(table.end[x]! - 1, left);
  }
  return table;
}

/** A row of columns brought down to fewer. */
export function reduceRow(sums: Float32Array, columns: Coverage, out: Float32Array, at: number, count: number): void {
  for (let x = 0; x < count; x++) {
    const first = columns.first[x]!;
    const last = columns.end[x]! - 1;
    let sum = sums[first]! * columns.leftPart[x]!;
    for (let i = first + 1; i < last; i++) sum += sums[i]!;
    if (last > first) sum += sums[last]! * columns.rightPart[x]!;
    out[at + x] = sum / columns.scale;
  }
}
