/** Pixels to a side of the tile. */
export const TILE = 64;
/** How widely a point is felt, in pixels, and where it ends. */
const SIGMA = 1.5;
const REACH = 8;
/** Points that the first pattern has, as a part of all. */
const FIRST = 0.1;

/**
 * A tile of ranks 0 … TILE² − 1 in which those up to any rank lie as evenly as they can without any order: noise that has nothing coarse in
 * it. It meets itself at its borders.
 *
 * Shape   TILE² ranks, row after row; always the same.
 * Source  void and cluster: Ulichney, "The void-and-cluster method for dither array generation" (1993).
 */
export function blueNoiseRanks(): Uint16Array {
  const count = TILE * TILE;
  const span = 2 * REACH + 1;
  const kernel = Float64Array.from({ length: span * span }, (_, i) => {
    const [x, y] = [(i % span) - REACH, Math.floor(i / span) - REACH];
    return Math.exp(-(x * x + y * y) / (2 * SIGMA * SIGMA));
  });
  const energy = new Float64Array(count);
  const isSet = new Uint8Array(count);
  const put = (at: number, sign: 1 | -1) => {
    isSet[at] = sign > 0 ? 1 : 0;
    const [x, y] = [at % TILE, Math.floor(at / TILE)];
    for (let v = 0, i = 0; v < span; v++) {
      const row = ((y + v - REACH + TILE) % TILE) * TILE;
      for (let u = 0; u < span; u++, i++) {
        const k = row + ((x + u - REACH + TILE) % TILE);
        energy[k] = energy[k]! + sign * kernel[i]!;
      }
    }
  };
  const tightest = () => extreme(energy, isSet, 1, 1);
  const emptiest = () => extreme(energy, isSet, 0, -1);
  let state = 1;
  for (let placed = 0; placed < FIRST * count;) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const at = state % count;
    if (isSet[at]) continue;
    put(at, 1);
    placed++;
  }
  // The first pattern is evened out: the tightest point goes to the emptiest place until that is where it came from.
  for (;;) {
    const from = tightest();
    put(from, -1);
    const to = emptiest();
    put(to, 1);
    if (to === from) break;
  }
  const ranks = new Uint16Array(count);
  const [first, evened] = [isSet.slice(), energy.slice()];
  const placed = first.reduce((sum, is) => sum + is, 0);
  for (let rank = placed - 1; rank >= 0; rank--) {
    const at = tightest();
    put(at, -1);
    ranks[at] = rank;
  }
  isSet.set(first);
  energy.set(evened);
  for (let rank = placed; rank < count; rank++) {
    const at = emptiest();
    put(at, 1);
    ranks[at] = rank;
  }
  return ranks;
}

/** The place of one kind with the most energy, or with `sign` −1 the least. */
function extreme(energy: Float64Array, isSet: Uint8Array, kind: 0 | 1, sign: 1 | -1): number {
  let [best, at] = [-Infinity, 0];
  for (let i = 0; i < energy.length; i++) {
    if (isSet[i] === kind && sign * energy[i]! > best) {
      best = sign * energy[i]!;
      at = i;
    }
  }
  return at;
}
