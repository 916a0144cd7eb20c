import fc from "fast-check";
import { expect, test } from "vitest";
import { digestOfWords, digestText, wordsOf } from "./digest";

test("whole blocks are digested as published", () => {
  // By an independent implementation of MurmurHash3, x86, 128 bits, seed 0.
  expect(digestText(digestOfWords(wordsOf("0123456789abcdef")))).toBe("fb7d440936aed30a48ad1d9b572b3bfd");
});

test("no two words of a thousand meet, nor those that differ in one bit or in zeros at their end", () => {
  const texts = Array.from({ length: 1000 }, (_, i) => digestText(digestOfWords(Int32Array.of(i))));
  const ends = Array.from({ length: 40 }, (_, length) => digestText(digestOfWords(new Int32Array(length))));
  const all = [...texts.slice(1), ...ends];
  expect(new Set(all).size).toBe(all.length);
});

test("a change of any one bit changes every word of the digest", () => {
  fc.assert(
    fc.property(fc.array(fc.integer(), { minLength: 1, maxLength: 12 }), fc.nat(), fc.nat(31), (values, at, bit) => {
      const words = Int32Array.from(values);
      const before = digestOfWords(words);
      words[at % words.length]! ^= 1 << bit;
      const after = digestOfWords(words);
      expect(after.filter((word, i) => word === before[i])).toEqual([]);
    }),
    { seed: 11 },
  );
});
