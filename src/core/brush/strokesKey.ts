import { digestOfWords, digestText, wordsOf, type Digest } from "../text/digest";
import type { Stroke } from "./stroke";

const digests = new WeakMap<Stroke, Digest>();

/**
 * Equal keys, equal strokes in the same order, in whatever thread or process they are made: by what strokes are alone. A stroke is never changed,
 * so each is read once.
 *
 * Cost    some 0.1 µs a stroke that was read before, for there may be thousands under a hand.
 */
export function strokesKey(strokes: readonly Stroke[]): string {
  const words = new Int32Array(4 * strokes.length);
  strokes.forEach((stroke, i) => words.set(digestOf(stroke), 4 * i));
  return digestText(digestOfWords(words));
}

function digestOf(stroke: Stroke): Digest {
  const known = digests.get(stroke);
  if (known) return known;
  const byName = Object.entries(stroke).toSorted(([a], [b]) => (a < b ? -1 : 1));
  const digest = digestOfWords(wordsOf(JSON.stringify(byName)));
  digests.set(stroke, digest);
  return digest;
}
