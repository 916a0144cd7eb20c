import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { JsonGuard } from "./jsonGuard";

const NONE = { bytes: 1e9, values: 1e9 };

/** What a guard says of a text that comes in pieces of so many bytes: the code of its refusal, or "taken". */
function judged(text: string, limits = NONE, pieceBytes = 7): string {
  const bytes = new TextEncoder().encode(text);
  const guard = new JsonGuard(limits);
  try {
    for (let at = 0; at < bytes.length; at += pieceBytes) guard.take(bytes.subarray(at, at + pieceBytes));
    return "taken";
  } catch (error) {
    return (error as { code: string }).code;
  }
}

/** The depth and the values of JSON, counted on what was read from it. */
function counted(json: unknown, depth = 0): { depth: number; values: number } {
  if (typeof json !== "object" || json === null) return { depth, values: 1 };
  const inner = Object.values(json).map((value) => counted(value, depth + 1));
  return {
    depth: Math.max(depth + 1, ...inner.map((one) => one.depth)),
    values: 1 + inner.reduce((sum, one) => sum + one.values, 0),
  };
}

describe("JSON on its way in", () => {
  test("is followed through any texts and pieces: as many values and as deep as it is when it is read", () => {
    const awkward = fc.string({ unit: fc.constantFrom('"', "\\", "[", "]", "{", "}", ",", "a", "é", "\u2028"), maxLength: 70 });
    const json = fc.letrec((tie) => ({
      value: fc.oneof({ depthSize: "medium" }, awkward, fc.integer(), fc.constant(null), tie("list"), tie("object")),
      list: fc.array(tie("value"), { maxLength: 5 }),
      object: fc.dictionary(awkward, tie("value"), { maxKeys: 5 }),
    })).value;
    fc.assert(
      fc.property(json, fc.integer({ min: 1, max: 40 }), (value, pieceBytes) => {
        const { depth, values } = counted(value);
        fc.pre(depth <= 32);
        const text = JSON.stringify(value);
        // An empty list has no values in it and is counted as if it had one: never less than there are.
        expect(judged(text, { bytes: 1e9, values: 2 * values }, pieceBytes)).toBe("taken");
        if (values > 1) expect(judged(text, { bytes: 1e9, values: values - 1 }, pieceBytes)).toBe("too_large");
      }),
      { numRuns: 500 },
    );
  });

  test("is refused before it is read where it is too deep, too long or of too many values", () => {
    const nested = (depth: number) => "[".repeat(depth) + "]".repeat(depth);
    expect([judged(nested(32)), judged(nested(33)), judged("[".repeat(1e6))]).toEqual(["taken", "invalid_input", "invalid_input"]);
    expect(judged('{"a":'.repeat(33))).toBe("invalid_input");
    expect(judged(JSON.stringify("[".repeat(1000)))).toBe("taken"); // in a text it is a letter
    expect(judged("x".repeat(101), { bytes: 100, values: 1e9 })).toBe("too_large");
    expect(judged("[1,1,1]", { bytes: 100, values: 3 })).toBe("too_large");
  });
});
