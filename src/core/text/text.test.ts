import { expect, test } from "vitest";
import { cleanText, cutText, isWellFormed, textOf } from "./text";

test("control characters, halves of characters and white space at the ends go", () => {
  expect(cleanText("  Veyra\0\0 Optics\u0007\n50 mm \u2028 ")).toBe("Veyra Optics 50 mm");
  expect(cleanText("a\ud800b")).toBe("a\ufffdb");
  expect(cleanText("Дом 🏔️")).toBe("Дом 🏔️");
});

test("a text is cut between what people take for characters", () => {
  expect(cutText("abc", 3)).toBe("abc");
  expect(cutText("ab👨‍👩‍👧", 5)).toBe("ab");
  expect(cutText("ae\u0301", 2)).toBe("a");
  expect(cutText("one two", 4)).toBe("one");
  expect(isWellFormed(cutText("👍".repeat(90), 101))).toBe(true);
});

test("text as files hold it: UTF-8, or else Windows-1252; nothing for what is no text", () => {
  expect(textOf(Buffer.from("Объектив 50"))).toBe("Объектив 50");
  expect(textOf(Buffer.from([0x4f, 0x62, 0x6a, 0xe9, 0x74, 0, 0]))).toBe("Objét");
  expect(textOf("Make\0\0\0")).toBe("Make");
  for (const nothing of [undefined, null, 7, "", " \0 ", {}, new Uint8Array()]) expect(textOf(nothing)).toBeUndefined();
  expect(textOf("x".repeat(999))!.length).toBe(200);
});

test("NUL and halves of characters are not text", () => {
  expect(["a\0", "\udc00", "a\ud83d"].map(isWellFormed)).toEqual([false, false, false]);
  expect(isWellFormed("👍 ok")).toBe(true);
});
