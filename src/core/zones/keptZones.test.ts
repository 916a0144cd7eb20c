import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { anyStrands } from "../../../tests/anyPlan";
import { restingPass } from "../plan/defaultPlan";
import { passCurve } from "../passes/passKinds";
import { zonesOnShare } from "./keptZones";
import { anyNumber } from "../../../tests/anyNumber";

test("a zone switched off is left alone to its borders; half a zone beyond, the pass acts fully", () => {
  expect([4.5, 5, 5.5].map((zone) => zonesOnShare(zone, [5]))).toEqual([0, 0, 0]);
  expect(zonesOnShare(5.75, [5])).toBeCloseTo(0.5, 12);
  expect([4, 6, 0].map((zone) => zonesOnShare(zone, [5]))).toEqual([1, 1, 1]);
  expect(zonesOnShare(5, [])).toBe(1);
});

test("two zones switched off side by side leave nothing between them", () => {
  for (let zone = 3.5; zone <= 5.5; zone += 0.05) expect(zonesOnShare(zone, [4, 5])).toBeCloseTo(0, 12);
});

describe("order", () => {
  test("any placement with any zones off keeps the order of all 65,536 levels, and the tones of those zones", () => {
    const zones = fc.subarray([...Array(11).keys()], { maxLength: 8 });
    fc.assert(
      fc.property(anyStrands(), zones, anyNumber(0, 2), (strands, zonesOff, strength) => {
        const curve = passCurve({
          ...restingPass("placement", "p", "P"),
          zonesOff,
          strength,
          move: { kind: "placement", strands },
        })!;
        let last = -Infinity;
        for (let level = 0; level < 65536; level++) {
          const zone = (level / 65535) * 10;
          const placed = curve(zone);
          if (placed < last - 1e-9) throw new Error(`falls at ${zone}`);
          last = placed;
          // A tone table has knots at every border of a zone, so that inside one nothing leaks in.
          if (zonesOff.some((off) => Math.abs(zone - off) <= 0.5) && Math.abs(placed - zone) > 1e-6)
            throw new Error(`${zone} moved to ${placed}`);
        }
      }),
      { seed: 131, numRuns: 60 },
    );
  });
});
