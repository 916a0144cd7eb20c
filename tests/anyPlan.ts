import fc from "fast-check";
import { LEAST_HUE_GAP, type HueKnot } from "@/core/mix/hueCurve";
import { LEAST_GAP, type Strand } from "@/core/placement/strand";
import { BLEND_MODES } from "@/core/blend/blend";
import type { Move, Plan } from "@/core/plan/plan";

// Any valid plan, for property tests.

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const zone = fc.double({ min: 0, max: 10, noNaN: true });

/** Any valid strands: two to eight, some of them holds. */
export function anyStrands(): fc.Arbitrary<Strand[]> {
  return fc.array(fc.record({ from: zone, to: zone, isHold: fc.boolean() }), { minLength: 2, maxLength: 8 }).map((drafts) => {
    const froms = drafts.map(({ from }) => from).sort((a, b) => a - b);
    for (let i = 1; i < froms.length; i++) froms[i] = Math.max(froms[i]!, froms[i - 1]! + LEAST_GAP);
    const excess = Math.max(froms[froms.length - 1]! - 10, 0);
    const shifted = froms.map((from) => Math.max(from - excess, 0));
    for (let i = 1; i < shifted.length; i++) shifted[i] = Math.max(shifted[i]!, shifted[i - 1]! + LEAST_GAP);
    let floor = 0;
    return shifted.map((from, i) => {
      const wanted = drafts[i]!.isHold ? from : drafts[i]!.to;
      floor = Math.max(floor, wanted);
      return { from, to: floor };
    });
  });
}

const knots: fc.Arbitrary<HueKnot[]> = fc
  .array(fc.record({ hueDeg: fc.double({ min: 0, max: 357, noNaN: true }), stops: fc.double({ min: -3, max: 3, noNaN: true }) }), {
    maxLength: 8,
  })
  .map((made) => {
    const ordered = made.toSorted((a, b) => a.hueDeg - b.hueDeg);
    return ordered.filter((knot, i) => i === 0 || knot.hueDeg - ordered[i - 1]!.hueDeg >= 2 * LEAST_HUE_GAP);
  });

const anyMove: fc.Arbitrary<Move> = fc.oneof(
  anyStrands().map((strands) => ({ kind: "placement" as const, strands })),
  fc
    .record({
      around: zone,
      grade: fc.double({ min: -1, max: 5, noNaN: true }),
      black: fc.double({ min: 0, max: 4, noNaN: true }),
      white: fc.double({ min: 5, max: 10, noNaN: true }),
    })
    .map((settings) => ({ kind: "contrast" as const, ...settings })),
);

const anyPass = fc.record({ on: fc.boolean(), strength: unit.map((u) => 2 * u), blend: fc.constantFrom(...BLEND_MODES), move: anyMove });

const weight = fc.double({ min: -2, max: 2, noNaN: true });

/** Any valid plan. */
export function anyPlan(): fc.Arbitrary<Plan> {
  return fc.record({
    version: fc.constant(2 as const),
    mix: fc.record({
      weights: fc.record({ red: weight, green: weight, blue: weight }),
      sumHeld: fc.boolean(),
      huesOn: fc.boolean(),
      hueKnots: knots,
    }),
    passes: fc.array(anyPass, { maxLength: 4 }).map((made) => made.map((pass, i) => ({ ...pass, id: `pass-${i}`, name: `Pass ${i}` }))),
  });
}
