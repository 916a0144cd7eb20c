import { expect, test } from "vitest";
import { defaultPlan, restingPass } from "./defaultPlan";
import { copyOf, insertPass, MOST_PASSES, movePass, removePass } from "./editPasses";
import type { Plan } from "./plan";

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
  const copy = copyOf(original, "z");
  expect(copy).toEqual({ ...original, id: "z", name: "A, again" });
  expect(copy.move).not.toBe(original.move);
});
