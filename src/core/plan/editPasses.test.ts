import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { defaultPlan, restingPass } from "./defaultPlan";
import {
  copyOf,
  insertPass,
  MOST_PASSES,
  movePass,
  passInSet,
  placeOfSet,
  removePass,
  tieToBefore,
  untieFrom,
  untieSet,
} from "./editPasses";
import { parsePlan } from "../../contracts/plan";
import type { PassSet, Plan } from "./plan";

const plan = (): Plan => ({ ...defaultPlan(), passes: ["a", "b", "c"].map((id) => restingPass("placement", id, id.toUpperCase())) });
const order = ({ passes }: Plan) => passes.map(({ id }) => id).join("");
const added = restingPass("contrast", "n", "New");

test("a pass goes in after the one named, else at the end", () => {
  expect(order(insertPass(plan(), added, "a")!)).toBe("anbc");
  expect(order(insertPass(plan(), added)!)).toBe("abcn");
  expect(order(insertPass(plan(), added, "nobody")!)).toBe("abcn");
});

test("a plan takes so many passes and no more", () => {
  const full = { ...plan(), passes: Array.from({ length: MOST_PASSES }, (_, i) => restingPass("placement", `p${i}`, "P")) };
  expect(insertPass(full, added)).toBeUndefined();
});

test("passes are moved, to the ends at the furthest, and removed", () => {
  expect(order(movePass(plan(), "a", 2))).toBe("bca");
  expect(order(movePass(plan(), "c", 0))).toBe("cab");
  expect(order(movePass(plan(), "b", 99))).toBe("acb");
  expect(order(movePass(plan(), "b", -5))).toBe("bac");
  expect(order(movePass(plan(), "nobody", 0))).toBe("abc");
  expect(order(removePass(plan(), "b"))).toBe("ac");
});

test("a copy shares nothing with its original", () => {
  const original = plan().passes[0]!;
  const copy = copyOf(plan(), original, "z");
  expect(copy).toEqual({ ...original, id: "z", name: "A 2" });
  const copied = { passes: [...plan().passes, copy] };
  expect(copyOf(copied, copy, "y").name).toBe("A 3");
  expect(copy.move).not.toBe(original.move);
});

describe("sets", () => {
  const made = (id: string): PassSet => ({ id, name: "Set", on: true, strength: 1, region: null, gate: null });
  const sets = ({ passes }: Plan) => passes.map(({ set }) => set ?? "-").join("");
  const tied = () => tieToBefore(plan(), "b", made("S"))!;

  test("a pass is tied to the one before it, and untied with what follows it", () => {
    expect(sets(tied())).toBe("SS-");
    expect(sets(tieToBefore(tied(), "c", made("T"))!)).toBe("SSS");
    expect(tieToBefore(tied(), "b", made("T"))).toBeUndefined();
    expect(tieToBefore(plan(), "a", made("T"))).toBeUndefined();
    const three = tieToBefore(tied(), "c", made("T"))!;
    expect(sets(untieFrom(three, "b"))).toBe("S--");
    expect(untieFrom(three, "a").sets).toEqual([]);
    expect(sets(untieSet(three, "S"))).toBe("---");
    expect(placeOfSet(three, "S")).toEqual({ first: 0, end: 3 });
  });
  test("a pass moved or put in between two of a set joins it; moved away, it leaves", () => {
    expect(sets(movePass(tied(), "c", 1))).toBe("SSS");
    expect(sets(insertPass(tied(), added, "a")!)).toBe("SSS-");
    const three = tieToBefore(tied(), "c", made("T"))!;
    const four = insertPass(three, added, "c")!;
    expect(sets(four)).toBe("SSS-");
    expect(sets(movePass(four, "a", 3))).toBe("SS--");
  });
  test("the last pass of a set takes it along", () => {
    expect(removePass(removePass(tied(), "a"), "b").sets).toEqual([]);
  });
  test("strengths multiply, and a set switched off switches its passes off", () => {
    const grouped = { ...tied(), sets: [{ ...made("S"), strength: 1.5 }] };
    const half = { ...grouped.passes[0]!, strength: 0.5 };
    expect(passInSet(grouped, half)).toMatchObject({ strength: 0.75, on: true });
    expect(passInSet({ ...grouped, sets: [{ ...made("S"), on: false }] }, half).on).toBe(false);
    expect(passInSet(grouped, grouped.passes[2]!)).toBe(grouped.passes[2]);
  });
  test("any sequence of edits leaves a valid plan", () => {
    const edit = fc.record({
      kind: fc.constantFrom("insert", "remove", "move", "tie", "untie", "untieSet"),
      pick: fc.nat(9),
      to: fc.nat(9),
    });
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 30 }), (edits) => {
        let now = plan();
        edits.forEach(({ kind, pick, to }, i) => {
          const pass = now.passes[pick % Math.max(now.passes.length, 1)];
          if (kind === "insert") now = insertPass(now, restingPass("placement", `n${i}`, "New"), pass?.id) ?? now;
          if (!pass) return;
          if (kind === "remove") now = removePass(now, pass.id);
          if (kind === "move") now = movePass(now, pass.id, to);
          if (kind === "tie") now = tieToBefore(now, pass.id, made(`s${i}`)) ?? now;
          if (kind === "untie") now = untieFrom(now, pass.id);
          if (kind === "untieSet" && pass.set) now = untieSet(now, pass.set);
          expect(parsePlan(now)).toEqual(now);
        });
      }),
      { seed: 132, numRuns: 200 },
    );
  });
});
