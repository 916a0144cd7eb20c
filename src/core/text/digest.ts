/** 128 bits as four words. */
export type Digest = readonly [number, number, number, number];

/** What the words of each lane are multiplied by, before they are turned, and the next lane's after it. */
const [C1, C2, C3, C4] = [0x239b961b, 0xab0e9789 | 0, 0x38b34ae5, 0xa1e38b93 | 0];

/**
 * A digest of words: equal words, equal digest, in whatever process it is made. By chance two others meet once in 2^128;
 * it withstands nobody who looks for two that do.
 *
 * Units   32-bit words; blocks of four, the last filled up with zeros, which the length tells from words.
 * Source  Appleby, MurmurHash3 (x86, 128 bits, seed 0), of whole blocks.
 */
export function digestOfWords(words: Int32Array): Digest {
  let [a, b, c, d] = [0, 0, 0, 0];
  for (let i = 0; i < words.length; i += 4) {
    a = (Math.imul(turned(a ^ mixed(words, i, C1, 15, C2), 19) + b, 5) + 0x561ccd1b) | 0;
    b = (Math.imul(turned(b ^ mixed(words, i + 1, C2, 16, C3), 17) + c, 5) + 0x0bcaa747) | 0;
    c = (Math.imul(turned(c ^ mixed(words, i + 2, C3, 17, C4), 15) + d, 5) + 0x96cd1c35) | 0;
    d = (Math.imul(turned(d ^ mixed(words, i + 3, C4, 18, C1), 13) + a, 5) + 0x32ac3b17) | 0;
  }
  const bytes = 4 * words.length;
  return spread(spread([a ^ bytes, b ^ bytes, c ^ bytes, d ^ bytes]).map(finished) as unknown as Digest);
}

function mixed(words: Int32Array, at: number, first: number, bits: number, second: number): number {
  const word = at < words.length ? words[at]! : 0;
  return Math.imul(turned(Math.imul(word, first), bits), second);
}

/** A text of Latin letters and figures as words, four to a word; the last is filled up with zeros. */
export function wordsOf(text: string): Int32Array {
  const words = new Int32Array(Math.ceil(text.length / 4));
  for (let i = 0; i < text.length; i++) words[i >> 2]! |= text.charCodeAt(i) << (8 * (i & 3));
  return words;
}

/** A digest as text. */
export function digestText(digest: Digest): string {
  return digest.map((word) => (word >>> 0).toString(16).padStart(8, "0")).join("");
}

/** Brings each lane to every other. */
function spread([a, b, c, d]: Digest): Digest {
  const all = (a + b + c + d) | 0;
  return [all, (b + all) | 0, (c + all) | 0, (d + all) | 0];
}

function finished(word: number): number {
  const once = Math.imul(word ^ (word >>> 16), 0x85ebca6b);
  const twice = Math.imul(once ^ (once >>> 13), 0xc2b2ae35);
  return twice ^ (twice >>> 16);
}

function turned(word: number, bits: number): number {
  return (word << bits) | (word >>> (32 - bits));
}
