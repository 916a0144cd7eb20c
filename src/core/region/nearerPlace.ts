import type { Size } from "../spatial/areaReduce";

/**
 * What a way over the whole long edge costs besides how much the colour changes along it, so that the middle between two places is in the
 * middle.
 */
const LONG_EDGE = 1.28;
/** Ways that differ by less are as long as each other. */
const SAME_LENGTH = 0.002;

/**
 * The length of the shortest way from any seed to each place, by how much the colour changes along it; infinite where no way leads.
 *
 * Shape   a value for each pixel. `isOpen` tells which pixels a way may lead over; `change` how much the colour changes between two
 *         neighbours.
 * Source  geodesic distance (Criminisi, Sharp & Blake 2008), exact by label-correcting buckets (Dial 1969) instead of sweeps.
 */
export function wayFrom(
  seeds: readonly number[],
  { width, height }: Size,
  isOpen: (at: number) => boolean,
  change: (from: number, to: number) => number,
): Float32Array {
  const below = width * (height - 1);
  const step = LONG_EDGE / Math.max(width, height);
  const length = new Float32Array(width * height).fill(Infinity);
  const queues: number[][] = [];
  const offer = (at: number, exact: number) => {
    const found = Math.fround(exact); // as it is kept, or equal ways would be shorter than each other for ever
    if (found >= length[at]!) return;
    length[at] = found;
    (queues[Math.floor(found / SAME_LENGTH)] ??= []).push(at);
  };
  const go = (from: number, to: number, soFar: number) => {
    if (isOpen(to)) offer(to, soFar + step + change(from, to));
  };
  for (const seed of seeds) offer(seed, 0);
  for (let q = 0; q < queues.length; q++) {
    const queue = queues[q];
    for (let next = queue?.pop(); next !== undefined; next = queue!.pop()) {
      const found = length[next]!;
      const x = next % width;
      if (x > 0) go(next, next - 1, found);
      if (x < width - 1) go(next, next + 1, found);
      if (next >= width) go(next, next - width, found);
      if (next < below) go(next, next + width, found);
    }
  }
  return length;
}
