import fc from "fast-check";
import { expect, test } from "vitest";
import { anyNumber } from "../../../tests/anyNumber";
import { wholeGrid } from "../spatial/grid";
import { falloffAt, falloffOf } from "./falloff";
import type { PixelDab } from "./sharpDabs";
import { SmoothDabs } from "./smoothDabs";
import { PLACES, StrokePlane } from "./strokePlane";
import { towardsFrame } from "./towardsFrame";

const [width, height] = [41, 30];
const grid = wholeGrid({ width, height });
const anyDab = fc.record({ x: anyNumber(-6, width + 6), y: anyNumber(-6, height + 6), reach: anyNumber(3, 40), flow: anyNumber(0, 1) });

/** How far a dab acts on a pixel, reckoned by itself. */
function shareOf({ x, y, reach, frame }: PixelDab, hardness: number, at: number): number {
  const [dx, dy] = [(at % width) - x, Math.floor(at / width) - y];
  const away = Math.hypot(dx * (dx < 0 ? frame.left : frame.right), dy * (dy < 0 ? frame.up : frame.down));
  return falloffAt(away / reach, hardness);
}

test("soft dabs are laid one after the other, each pixel by its middle, and held pixels place by place", () => {
  fc.assert(
    fc.property(
      fc.array(anyDab, { minLength: 1, maxLength: 40 }),
      fc.constantFrom(0, 0.3, 0.8),
      fc.constantFrom(0, 1),
      fc.boolean(),
      (made, hardness, goal, isHeld) => {
        const dabs = made.map((dab) => ({ ...dab, frame: towardsFrame(grid, dab.x, dab.y, dab.reach) }));
        const strokes = new StrokePlane(Float32Array.from({ length: width * height }, (_, at) => ((at * 7) % 11) / 10));
        const held = 13 * width + 21;
        const some = Float64Array.from({ length: PLACES ** 2 }, (_, k) => Number(k < 5));
        if (isHeld) strokes.layPlaces(held, 1, some, 0);
        const expected = Float64Array.from(strokes.plane);
        const smooth = new SmoothDabs(grid, strokes, falloffOf(hardness), goal);
        for (const dab of dabs) smooth.add(dab);
        smooth.layOn();
        for (const dab of dabs)
          for (let at = 0; at < expected.length; at++)
            expected[at] = expected[at]! + (goal - expected[at]!) * dab.flow * shareOf(dab, hardness, at);
        // What was laid on the places that are taken away now is gone, and nothing else.
        const others = (rest: number) => ((PLACES ** 2 - 5) * rest) / PLACES ** 2;
        if (isHeld && strokes.finer) {
          strokes.layPlaces(held, 0, some, 0);
          expected[held] = others(dabs.reduce((rest, dab) => rest + (goal - rest) * dab.flow * shareOf(dab, hardness, held), 0.6));
        }
        for (let at = 0; at < expected.length; at++) expect(Math.abs(strokes.plane[at]! - expected[at]!)).toBeLessThan(2e-4);
      },
    ),
    { numRuns: 150 },
  );
});
