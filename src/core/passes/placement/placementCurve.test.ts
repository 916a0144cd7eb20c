import { readTable } from "../../kernels/pairTable";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { compilePlan } from "../../plan/compilePlan";
import { defaultPlan } from "../../plan/defaultPlan";
import { anyStrands } from "../../../../tests/anyPlan";
import { findStrain } from "./findStrain";
import { liftableZone } from "./liftZone";
import { placementAtStrength, placementCurve } from "./placementCurve";
import { addStrand, isHold, LEAST_GAP, moveStrand, moveTogether, pushStrand, removeStrand, type Strand } from "./strand";
import { anyNumber } from "../../../../tests/anyNumber";

const strands = (...pairs: [number, number][]): Strand[] => pairs.map(([from, to]) => ({ from, to }));

test("two holds at the ends leave every tone where it falls", () => {
  const curve = placementCurve(strands([0, 0], [10, 10]));
  for (let zone = 0; zone <= 10; zone += 0.37) expect(curve(zone)).toBeCloseTo(zone, 12);
});

test("meets its strands and stays between them", () => {
  const curve = placementCurve(strands([0, 0], [4, 6], [7, 6.5], [10, 10]));
  expect([curve(0), curve(4), curve(7), curve(10)]).toEqual([0, 6, 6.5, 10]);
  expect(curve(5.5)).toBeGreaterThan(6);
  expect(curve(5.5)).toBeLessThan(6.5);
});

test("is level beyond the outermost strands: a black switch and paper white", () => {
  const curve = placementCurve(strands([1, 0], [9, 10]));
  expect([curve(0.5), curve(9.7)]).toEqual([0, 10]);
});

describe("what must hold for every placement", () => {
  test("monotone on all 65,536 levels, and holds within 1e-6", () => {
    fc.assert(
      fc.property(anyStrands(), anyNumber(0, 2), (made, strength) => {
        const curve = placementAtStrength(made, strength);
        let last = -Infinity;
        for (let level = 0; level < 65536; level++) {
          const placed = curve((level / 65535) * 10);
          // Mixing at a strength rounds in the last digit of a double.
          if (placed < last - 1e-12) throw new Error(`falls at level ${level}: ${last} to ${placed}`);
          last = placed;
        }
        for (const hold of made.filter(isHold)) expect(Math.abs(curve(hold.from) - hold.to)).toBeLessThan(1e-6);
      }),
      { seed: 21, numRuns: 60 },
    );
  });

  test("a hold stays at any strength, and nothing is driven past it", () => {
    const made = strands([0, 0], [1, 1.8], [2, 2], [6, 5], [7, 7], [8, 7.2], [10, 10]);
    for (const strength of [1.2, 2]) {
      const curve = placementAtStrength(made, strength);
      for (const hold of [2, 7]) expect(curve(hold)).toBe(hold);
      expect(curve(1)).toBeGreaterThan(1.8);
      expect(curve(1)).toBeLessThan(2);
      expect(curve(6)).toBeLessThan(5);
      expect(curve(6)).toBeGreaterThan(2);
      expect(curve(8)).toBeGreaterThan(7);
    }
  });

  test("stays in the scale", () => {
    fc.assert(
      fc.property(anyStrands(), anyNumber(0, 2), anyNumber(0, 10), (made, strength, zone) => {
        const placed = placementAtStrength(made, strength)(zone);
        expect(placed).toBeGreaterThanOrEqual(-1e-12);
        expect(placed).toBeLessThanOrEqual(10 + 1e-12);
      }),
      { seed: 22 },
    );
  });

  test("the table the kernels read keeps whole, half and third zones within 1e-6, and gentle curves within 2e-6", () => {
    const plan = defaultPlan();
    const made = strands([0, 0], [2.5, 2], [5, 5], [7, 7.5], [9, 9], [10, 10]);
    plan.passes[0]!.move = { kind: "placement", strands: made };
    const { step } = compilePlan(plan).passes[0]!;
    if (step?.kind !== "table") throw new Error("a placement is a tone step");
    const { table } = step;
    for (const { from, to } of made) expect(Math.abs(from / 10 + readTable(table, from / 10) - to / 10)).toBeLessThan(1e-6);
    const curve = placementCurve(made);
    for (let t = 0; t <= 1; t += 1 / 4999) expect(Math.abs(t + readTable(table, t) - curve(10 * t) / 10)).toBeLessThan(2e-6);
  });
});

describe("strength", () => {
  const made = strands([0, 0], [5, 6], [8, 8], [10, 10]);
  test("0 changes nothing, ½ goes half way, 2 goes twice as far", () => {
    expect(placementAtStrength(made, 0)(5)).toBe(5);
    expect(placementAtStrength(made, 0.5)(5)).toBe(5.5);
    expect(placementAtStrength(made, 2)(5)).toBe(7);
    expect(placementAtStrength(made, 2)(8)).toBe(8);
  });
  test("beyond 1 nears the ends without reaching them and keeps the order; what was placed at an end is there", () => {
    const far = placementAtStrength(strands([0, 0], [3, 0], [5, 9], [6, 9.2], [10, 10]), 2);
    expect([far(0), far(3), far(10)]).toEqual([0, 0, 10]);
    expect(far(5)).toBeGreaterThan(9.5);
    expect(far(6)).toBeGreaterThanOrEqual(far(5));
    expect(far(9.5)).toBeLessThan(10);
  });
});

describe("moving strands", () => {
  const made = strands([0, 0], [5, 5], [10, 10]);
  test("one stops at its neighbours", () => {
    expect(moveStrand(made, 1, { from: 20, to: 20 })[1]).toEqual({ from: 10 - LEAST_GAP, to: 10 });
    expect(moveStrand(made, 1, { from: -1, to: -1 })[1]).toEqual({ from: LEAST_GAP, to: 0 });
  });
  test("one is added in order, but not on top of another", () => {
    expect(addStrand(made, { from: 7, to: 7 })!.map(({ from }) => from)).toEqual([0, 5, 7, 10]);
    expect(addStrand(made, { from: 5.01, to: 5 })).toBeUndefined();
    expect(addStrand(made, { from: 11, to: 10 })).toBeUndefined();
  });
  test("one pushes those in its way along", () => {
    expect(pushStrand(strands([0, 0], [4, 4], [6, 6], [10, 10]), 1, 7)).toEqual(strands([0, 0], [4, 7], [6, 7], [10, 10]));
    expect(pushStrand(strands([0, 0], [4, 4], [6, 6], [10, 10]), 2, -3)).toEqual(strands([0, 0], [4, 0], [6, 0], [10, 10]));
  });
  test("several move by as much, and stop together at what stays", () => {
    const start = strands([0, 0], [2, 2], [4, 5], [6, 6], [10, 10]);
    const chosen = new Set([1, 2]);
    expect(moveTogether(start, chosen, 0.5)).toEqual(strands([0, 0], [2, 2.5], [4, 5.5], [6, 6], [10, 10]));
    expect(moveTogether(start, chosen, 3)).toEqual(strands([0, 0], [2, 3], [4, 6], [6, 6], [10, 10]));
    expect(moveTogether(start, chosen, -9)).toEqual(strands([0, 0], [2, 0], [4, 3], [6, 6], [10, 10]));
    fc.assert(
      fc.property(anyStrands(), fc.array(fc.nat(7)), anyNumber(-12, 12), (any, picked, by) => {
        const moved = moveTogether(any, new Set(picked), by);
        for (let i = 1; i < moved.length; i++) expect(moved[i]!.to).toBeGreaterThanOrEqual(moved[i - 1]!.to);
        expect(moved.map(({ from }) => from)).toEqual(any.map(({ from }) => from));
      }),
      { seed: 12 },
    );
  });
  test("the last two stay", () => {
    expect(removeStrand(made, 1)).toHaveLength(2);
    expect(removeStrand(strands([0, 0], [10, 10]), 0)).toHaveLength(2);
  });
});

describe("a zone lifted alone", () => {
  test("gets a strand, its neighbours hold", () => {
    expect(liftableZone(made(), 5)).toEqual({ strands: strands([0, 0], [4, 4], [5, 5], [6, 6], [10, 10]), index: 2 });
    expect(liftableZone(made(), 10)).toEqual({ strands: strands([0, 0], [9, 9], [10, 10]), index: 2 });
  });
  test("is found where it is placed, and nothing moves before the hand does", () => {
    const bent = strands([0, 0], [5, 6.5], [10, 10]);
    const { strands: joined, index } = liftableZone(bent, 6)!;
    expect(joined[index]!.to).toBeCloseTo(6, 6);
    const [before, after] = [placementCurve(bent), placementCurve(joined)];
    // More points on the curve make slopes of their own between them: a tenth of a zone at the most.
    for (let zone = 0; zone <= 10; zone += 0.1) expect(Math.abs(after(zone) - before(zone))).toBeLessThan(0.1);
  });
  test("is none where the placement is level", () => {
    expect(liftableZone(strands([0, 0], [3, 5], [7, 5], [10, 10]), 8)).toBeDefined();
    expect(liftableZone(strands([0, 4], [10, 6]), 1)).toBeUndefined();
  });
  const made = () => strands([0, 0], [10, 10]);
});

describe("strain", () => {
  test("finds where tones merge and where they are torn apart", () => {
    const curve = placementCurve(strands([0, 0], [4, 1], [5, 6], [9, 6.4], [10, 10]));
    const found = findStrain(curve);
    const tearing = found.find(({ kind }) => kind === "tearing")!;
    expect(tearing.from).toBeGreaterThan(3.8);
    expect(tearing.to).toBeLessThan(5.2);
    const merging = found.filter(({ kind }) => kind === "merging");
    expect(merging.some(({ from, to }) => from < 7 && to > 7)).toBe(true);
  });
  test("finds nothing in a gentle placement", () => {
    expect(findStrain(placementCurve(strands([0, 0], [4, 4.5], [10, 10])))).toEqual([]);
  });
});
