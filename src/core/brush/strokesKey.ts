import { digestOfWords, digestText, wordsOf, type Digest } from "../text/digest";
import type { Stroke } from "./stroke";

/** A stroke after others: the digest of all of them up to it. */
interface Link {
  after: Link | undefined;
  own: Digest;
  all: Digest;
}

/** The link each stroke was last. Strokes come after the same ones again and again, as more are drawn. */
const links = new WeakMap<Stroke, Link>();

/**
 * Equal keys, equal strokes in the same order, in whatever thread or process they are made: by what strokes are alone. A stroke is never
 * changed, so each is read once.
 *
 * Cost    of strokes that followed those before them when last asked, a look at each: there may be thousands under a hand.
 */
export function strokesKey(strokes: readonly Stroke[]): string {
  let last: Link | undefined;
  for (const stroke of strokes) last = linkAfter(last, stroke);
  return last ? digestText(last.all) : "";
}

function linkAfter(after: Link | undefined, stroke: Stroke): Link {
  const known = links.get(stroke);
  if (known && known.after === after) return known;
  const own = known?.own ?? digestOf(stroke);
  const link = { after, own, all: after ? digestOfWords(Int32Array.of(...after.all, ...own)) : own };
  links.set(stroke, link);
  return link;
}

function digestOf(stroke: Stroke): Digest {
  const values = stroke as unknown as Readonly<Record<string, unknown>>;
  let text = "";
  for (const name of inOrder(Object.keys(stroke))) text += `${name} ${String(values[name])};`;
  return digestOfWords(wordsOf(text));
}

const ordered = new Map<string, string[]>();

/** Names in an order of their own; strokes have the same few. */
function inOrder(names: string[]): string[] {
  const together = names.join();
  const known = ordered.get(together) ?? names.toSorted();
  ordered.set(together, known);
  return known;
}
