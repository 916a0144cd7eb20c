import { smoothStep } from "../curves/smoothStep";
import type { Size } from "../spatial/areaReduce";

/**
 * A way along which things hang together is at least so wide to either side of its middle, in long edges, and a pixel: a thread leads
 * nowhere.
 */
const PROBE = 1 / 320;
const LEVELS = 512;

/**
 * How far each place can be come to from some of its pixels, 0–1, through what is at least as full and wider than a thread: 1 where the
 * emptiest place of the best way is half full or more.
 *
 * Shape   a value for each pixel of `share`, whose own are 0–1. `seeds` are pixels of it.
 * Source  our own: an opening by reconstruction (Vincent 1993) of the best bottleneck of all ways; compared with a flood of
 *         single pixels in docs/decisions/0008-regions.md.
 */
export function reachable(share: Float32Array, size: Size, seeds: readonly number[]): Float32Array {
  const probe = Math.max(Math.round(PROBE * Math.max(size.width, size.height)), 1);
  const wide = share.map((level) => 1 - level);
  for (let i = 0; i < probe; i++) widen(wide, size);
  for (let i = 0; i < wide.length; i++) wide[i] = 1 - wide[i]!;
  // What was touched begins a way however narrow it is.
  for (const seed of seeds) for (const at of around(seed, probe, size)) wide[at] = share[at]!;
  const reached = bottlenecks(wide, size, seeds).map((level) => smoothStep(2 * level));
  const most = share.map((level) => smoothStep(2 * level));
  // Back from where the probe got to, as far again as it is wide, into what is too narrow for it.
  for (let i = 0; i < 2 * probe; i++) {
    widen(reached, size);
    for (let at = 0; at < reached.length; at++) if (reached[at]! > most[at]!) reached[at] = most[at]!;
  }
  return reached;
}

/** The pixels a probe covers about one. */
function around(at: number, probe: number, { width, height }: Size): number[] {
  const [column, row] = [at % width, Math.floor(at / width)];
  const found: number[] = [];
  for (let y = Math.max(row - probe, 0); y <= Math.min(row + probe, height - 1); y++)
    for (let x = Math.max(column - probe, 0); x <= Math.min(column + probe, width - 1); x++) found.push(y * width + x);
  return found;
}

/** Brings each pixel to the most of itself and the eight about it, in place. */
function widen(plane: Float32Array, { width, height }: Size): void {
  for (let row = 0; row < plane.length; row += width) {
    let [before, here] = [0, plane[row]!];
    for (let at = row; at < row + width; at++) {
      const after = at + 1 < row + width ? plane[at + 1]! : 0;
      const wider = before > after ? before : after;
      if (wider > here) plane[at] = wider;
      before = here;
      here = after;
    }
  }
  const above = new Float32Array(width);
  for (let row = 0; row < plane.length; row += width) {
    const below = row + width < width * height ? row + width : row;
    for (let x = 0; x < width; x++) {
      const [here, after] = [plane[row + x]!, plane[below + x]!];
      const wider = above[x]! > after ? above[x]! : after;
      if (wider > here) plane[row + x] = wider;
      above[x] = here;
    }
  }
}

/** The emptiest place of the fullest way from any seed to each place: a flood from full to empty. */
function bottlenecks(plane: Float32Array, { width, height }: Size, seeds: readonly number[]): Float32Array {
  const below = width * (height - 1);
  const reached = new Float32Array(plane.length);
  const queues: number[][] = Array.from({ length: LEVELS + 1 }, () => []);
  const offer = (at: number, soFar: number) => {
    const level = Math.min(soFar, plane[at]!);
    if (level <= reached[at]!) return;
    reached[at] = level;
    queues[Math.floor(level * LEVELS)]!.push(at);
  };
  for (const seed of seeds) offer(seed, 1);
  for (let level = LEVELS; level >= 0; level--) {
    const queue = queues[level]!;
    for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
      const found = reached[next]!;
      const x = next % width;
      if (x > 0) offer(next - 1, found);
      if (x < width - 1) offer(next + 1, found);
      if (next >= width) offer(next - width, found);
      if (next < below) offer(next + width, found);
    }
  }
  return reached;
}
