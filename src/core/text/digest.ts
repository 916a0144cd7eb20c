/** 128 bits as four words. */
export type Digest = readonly [number, number, number, number];

/** What a lane multiplies its words by, once they are turned, and adds to itself. */
const LANES = [
  { first: 0x239b961b, turn: 15, second: 0xab0e9789, laneTurn: 19, plus: 0x561ccd1b },
  { first: 0xab0e9789, turn: 16, second: 0x38b34ae5, laneTurn: 17, plus: 0x0bcaa747 },
  { first: 0x38b34ae5, turn: 17, second: 0xa1e38b93, laneTurn: 15, plus: 0x96cd1c35 },
  { first: 0xa1e38b93, turn: 18, second: 0x239b961b, laneTurn: 13, plus: 0x32ac3b17 },
] as const;

/**
 * A digest of words: equal words, equal digest, in whatever process it is made. By chance two others meet once in 2^128;
 * it withstands nobody who looks for two that do.
 *
 * Units   32-bit words; blocks of four, the last filled up with zeros, which the length tells from words.
 * Source  Appleby, MurmurHash3 (x86, 128 bits, seed 0), of whole blocks.
 */
export function digestOfWords(words: Int32Array): Digest {
  const lanes = new Int32Array(4);
  for (let i = 0; i < words.length; i += 4) {
    for (let lane = 0; lane < 4; lane++) {
      const { first, turn, second, laneTurn, plus } = LANES[lane]!;
      const word = i + lane < words.length ? words[i + lane]! : 0;
      const mixed = turned(lanes[lane]! ^ Math.imul(turned(Math.imul(word, first), turn), second), laneTurn);
      lanes[lane] = Math.imul(mixed + lanes[(lane + 1) % 4]!, 5) + plus;
    }
  }
  for (let lane = 0; lane < 4; lane++) lanes[lane] = lanes[lane]! ^ (4 * words.length);
  spread(lanes);
  for (let lane = 0; lane < 4; lane++) lanes[lane] = finished(lanes[lane]!);
  spread(lanes);
  return [lanes[0]!, lanes[1]!, lanes[2]!, lanes[3]!];
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
function spread(lanes: Int32Array): void {
  lanes[0] = lanes[0]! + lanes[1]! + lanes[2]! + lanes[3]!;
  for (let lane = 1; lane < 4; lane++) lanes[lane] = lanes[lane]! + lanes[0]!;
}

function finished(word: number): number {
  const once = Math.imul(word ^ (word >>> 16), 0x85ebca6b);
  const twice = Math.imul(once ^ (once >>> 13), 0xc2b2ae35);
  return twice ^ (twice >>> 16);
}

function turned(word: number, bits: number): number {
  return (word << bits) | (word >>> (32 - bits));
}
