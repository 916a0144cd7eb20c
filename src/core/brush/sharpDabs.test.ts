import fc from "fast-check";
import { expect, test } from "vitest";
import { anyNumber } from "../../../tests/anyNumber";
import { wholeGrid } from "../spatial/grid";
import { falloffAt, falloffOf } from "./falloff";
import { SharpDabs, type PixelDab } from "./sharpDabs";
import { PLACES, StrokePlane } from "./strokePlane";
import { towardsFrame } from "./towardsFrame";

const [width, height] = [37, 29];
const grid = wholeGrid({ width, height });

/** What a dab does to each place, reckoned place by place. */
function shareAt({ x, y, reach, frame }: PixelDab, hardness: number, px: number, py: number): number {
  const [dx, dy] = [px - x, py - y];
  const away = Math.hypot(dx * (dx < 0 ? frame.left : frame.right), dy * (dy < 0 ? frame.up : frame.down));
  if ((1 - hardness) * reach * PLACES >= 1) return falloffAt(away / reach, hardness);
  return Math.min(Math.max((((1 + hardness) * reach) / 2 - away) * PLACES + 0.5, 0), 1);
}

const anyDab = fc.record({ x: anyNumber(-4, width + 4), y: anyNumber(-4, height + 4), reach: anyNumber(0.5, 14), flow: anyNumber(0, 1) });

test("dabs of a stroke leave of each place what they leave one after the other", () => {
  fc.assert(
    fc.property(
      fc.array(anyDab, { minLength: 1, maxLength: 12 }),
      fc.constantFrom(0, 0.6, 0.9, 0.99, 1),
      fc.constantFrom(0, 0.4, 1),
      fc.boolean(),
      (made, hardness, goal, isEven) => {
        const stroke = { hardness, flow: made[0]!.flow, table: falloffOf(hardness) };
        const dabs = made.map((dab) => ({
          ...dab,
          flow: isEven ? stroke.flow : dab.flow,
          frame: towardsFrame(grid, dab.x, dab.y, dab.reach),
        }));
        const plane = new StrokePlane(new Float32Array(width * height).fill(0.3));
        const sharp = new SharpDabs(grid, stroke);
        for (const dab of dabs) sharp.add(dab);
        sharp.layOn(plane, goal);
        for (let at = 0; at < width * height; at++) {
          let sum = 0;
          for (let k = 0; k < PLACES * PLACES; k++) {
            const px = (at % width) + ((k % PLACES) + 0.5) / PLACES - 0.5;
            const py = Math.floor(at / width) + (Math.floor(k / PLACES) + 0.5) / PLACES - 0.5;
            const left = dabs.reduce((rest, dab) => rest * (1 - dab.flow * shareAt(dab, hardness, px, py)), 1);
            sum += goal + (0.3 - goal) * left;
          }
          expect(Math.abs(plane.plane[at]! - sum / PLACES ** 2)).toBeLessThan(2e-4);
        }
      },
    ),
    { numRuns: 150 },
  );
});

test("strokes that share an edge do not add up in its pixels as strokes apart would", () => {
  // Two halves of a disc's rim: what the first covers of a pixel the second, erasing the same disc, takes away wholly.
  const stroke = { hardness: 1, flow: 1, table: falloffOf(1) };
  const plane = new StrokePlane(new Float32Array(width * height));
  const dab = { x: 18.3, y: 14.2, reach: 9.4, flow: 1 };
  for (const goal of [1, 0]) {
    const sharp = new SharpDabs(grid, stroke);
    sharp.add({ ...dab, frame: towardsFrame(grid, dab.x, dab.y, dab.reach) });
    sharp.layOn(plane, goal);
  }
  // Places that a dab ends in are covered by half and taken away by half: no pixel keeps more than those.
  expect(Math.max(...plane.plane)).toBeLessThan(0.13);
});

test("a dab that was moved with its area goes on to the frame by where it lies now", () => {
  const grid = wholeGrid({ width: 300, height: 200 });
  const moved = { x: 0.1, y: -0.05 };
  // As a brushed area sees it that was moved: its grid lies the other way.
  const asMoved = { ...grid, x: grid.x - moved.x * grid.scale, y: grid.y - moved.y * grid.scale, moved };
  for (const [x, y] of [
    [4, 100],
    [294, 60],
    [150, 3],
    [20, 190],
  ] as const) {
    const [there, here] = [towardsFrame(asMoved, x, y, 30), towardsFrame(grid, x, y, 30)];
    for (const border of ["left", "right", "up", "down"] as const) expect(there[border]).toBeCloseTo(here[border], 9);
    expect(Math.min(...Object.values(here))).toBeLessThan(1);
  }
});
