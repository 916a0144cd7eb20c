import { LAST_ZONE } from "./zone";

/** Beyond the border of a zone that is switched off, a pass comes in over this much, in zones. */
const SHOULDER = 0.5;

/**
 * How far a pass acts on a tone when some zones are switched off: not at all on the tones those own, fully from half a
 * zone beyond, smoothly between.
 *
 * Units   zones 0–10 in, 0–1 out. `off` names whole zones 0–10.
 */
export function zonesOnShare(zone: number, off: readonly number[]): number {
  const away = Math.min(...off.map((owner) => Math.abs(zone - owner) - 0.5), SHOULDER);
  if (away <= 0) return 0;
  return 0.5 - 0.5 * Math.cos((Math.PI * away) / SHOULDER);
}

/**
 * Tones moved while some stay, brought into order again: none may pass a tone of a zone that is switched off. Where a move
 * runs into such a zone its tones are held at the border, smoothly.
 *
 * Shape   `moved` in zones at even places over 0–10; returned anew. Already ordered tones come back as they are.
 */
export function keptInOrder(moved: Float64Array, off: readonly number[]): Float64Array {
  const last = moved.length - 1;
  const out = moved.slice();
  const borders = keptStretches(off);
  let from = 0;
  for (let i = 0; i <= borders.length; i++) {
    const low = i === 0 ? 0 : borders[i - 1]!.to;
    const high = i === borders.length ? LAST_ZONE : borders[i]!.from;
    const end = i === borders.length ? last : Math.floor((high / LAST_ZONE) * last);
    orderStretch(out, from, end, low, high);
    if (i < borders.length) from = Math.ceil((borders[i]!.to / LAST_ZONE) * last);
  }
  return out;
}

/** Values from `from` to `end`, kept between two borders, each the mean of the highest before it and the lowest after it. */
function orderStretch(values: Float64Array, from: number, end: number, low: number, high: number): void {
  if (end < from) return;
  const rising = new Float64Array(end - from + 1);
  for (let i = from, most = low; i <= end; i++) {
    values[i] = Math.min(Math.max(values[i]!, low), high);
    most = Math.max(most, values[i]!);
    rising[i - from] = most;
  }
  for (let i = end, least = high; i >= from; i--) {
    least = Math.min(least, values[i]!);
    values[i] = (rising[i - from]! + least) / 2;
  }
}

/** The stretches of the scale that zones switched off own, joined where they touch, in order. */
function keptStretches(off: readonly number[]): { from: number; to: number }[] {
  const stretches: { from: number; to: number }[] = [];
  for (const zone of off.toSorted((a, b) => a - b)) {
    const from = Math.max(zone - 0.5, 0);
    const to = Math.min(zone + 0.5, LAST_ZONE);
    const before = stretches.at(-1);
    if (before && before.to >= from) before.to = to;
    else stretches.push({ from, to });
  }
  return stretches;
}
