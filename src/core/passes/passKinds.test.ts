import type { Pass } from "./pass";
import fc from "fast-check";
import { expect, test } from "vitest";
import { anyNumber } from "../../../tests/anyNumber";
import { anyStrands } from "../../../tests/anyPlan";
import { restingPass } from "../plan/defaultPlan";
import type { Move, MoveKind } from "./moves";
import { leavesAll, PASS_KINDS, passCurve } from "./passKinds";

const ORDERED = ["normal", "darken", "lighten", "multiply", "screen", "overlay", "hard-light"] as const;
const anyCurveMove: fc.Arbitrary<Move> = fc.oneof(
  anyStrands().map((strands) => ({ kind: "placement" as const, strands })),
  fc
    .record({ around: anyNumber(0, 10), grade: anyNumber(-1, 5), black: anyNumber(0, 4), white: anyNumber(5, 10) })
    .map((settings) => ({ kind: "contrast" as const, ...settings })),
);

/** How far a pass in the open lets tones fall below darker ones, in zones. */
function reversal(pass: Pass): number {
  const curve = passCurve(pass)!;
  let [highest, most] = [-Infinity, 0];
  for (let k = 0; k <= 2000; k++) {
    highest = Math.max(highest, curve(k / 200));
    most = Math.max(most, highest - curve(k / 200));
  }
  return most;
}

test("a placement or a contrast without gate or zones off keeps the order, by any blend that does, at any strength", () => {
  const pass = { ...restingPass("placement", "p", "P"), blend: "darken", strength: 2 } as const;
  const strands = [0, 0, 2, 4, 8, 4.5, 10, 10].flatMap((from, i, all) => (i % 2 ? [] : [{ from, to: all[i + 1]! }]));
  expect(reversal({ ...pass, move: { kind: "placement", strands } })).toBeLessThan(1e-9);
  fc.assert(
    fc.property(anyCurveMove, fc.constantFrom(...ORDERED), anyNumber(0, 2), (move, blend, strength) => {
      expect(reversal({ ...pass, move, blend, strength })).toBeLessThan(1e-9);
    }),
    { seed: 171, numRuns: 300 },
  );
});

test("a new pass leaves every tone, but for the kinds that begin faint", () => {
  const resting = (Object.keys(PASS_KINDS) as MoveKind[]).filter((kind) => leavesAll(restingPass(kind, "p", "P")));
  expect(resting.toSorted()).toEqual(["balance", "contrast", "exposure", "placement", "scene-light", "separation"]);
});
