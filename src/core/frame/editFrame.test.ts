import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { anyNumber } from "../../../tests/anyNumber";
import { FrameSchema } from "../../contracts/frame";
import { anyFrame } from "../../../tests/anyPlan";
import { levelledFrame, movedCrop, resizedCrop, seenDegrees, turnedFrame, withRatio, withSeenDegrees, type CropSides } from "./editFrame";
import { cropOf, LEAST_SIDE, pictureAtPrint, placedAround, placingOf, printAtPicture, WHOLE_FRAME, type Crop, type Frame } from "./frame";

const picture = { width: 1500, height: 1000 };
const anySides = fc.constantFrom<CropSides>(
  { across: -1, down: -1 },
  { across: 1, down: -1 },
  { across: 0, down: 1 },
  { across: 1, down: 1 },
  { across: -1, down: 0 },
);
const anyPlace = fc.record({ x: anyNumber(-0.5, 1.5), y: anyNumber(-0.5, 1.5) });

const corners = (crop: Crop, frame: Frame) => {
  const placing = placedAround(crop, crop, frame);
  return [-1, 1].flatMap((across) =>
    [-1, 1].map((down) => ({ across, down, ...pictureAtPrint(placing, ((1 + across) * crop.width) / 2, ((1 + down) * crop.height) / 2) })),
  );
};
const isInside = (crop: Crop, frame: Frame) =>
  corners(crop, frame).every(({ x, y }) => x >= -1e-6 && y >= -1e-6 && x <= 1 + 1e-6 && y <= 2 / 3 + 1e-6);

describe("turning", () => {
  test("clockwise as it is seen, mirrored or not: what is seen above comes to the right", () => {
    for (const mirrored of [false, true]) {
      const frame: Frame = { turns: 1, degrees: 0, mirrored, crop: { x: 0.4, y: 0.3, width: 0.2, height: 0.3 } };
      const [before, after] = [placingOf(frame, picture), placingOf(turnedFrame(frame, true), picture)];
      // A place a third down and in the middle, seen; turned it is two thirds to the right.
      const place = pictureAtPrint(before, before.width / 2, before.height / 3);
      const now = printAtPicture(after, place.x, place.y);
      expect([after.width, after.height]).toEqual([before.height, before.width]);
      expect(now.x).toBeCloseTo((2 / 3) * after.width, 6);
      expect(now.y).toBeCloseTo(after.height / 2, 6);
      expect(turnedFrame(turnedFrame(frame, true), false)).toEqual(frame);
    }
  });

  test("straightened by so many degrees, a print is turned clockwise by them as it is seen", () => {
    for (const mirrored of [false, true]) {
      const frame = withSeenDegrees({ ...WHOLE_FRAME, mirrored }, 7);
      expect(seenDegrees(frame)).toBe(7);
      const placing = placingOf(frame, picture);
      // A line that is level on the picture falls to the right on the print.
      const [a, b] = [printAtPicture(placing, 700, 500), printAtPicture(placing, 800, 500)];
      const [left, right] = a.x < b.x ? [a, b] : [b, a];
      expect(Math.atan2(right.y - left.y, right.x - left.x)).toBeCloseTo((7 * Math.PI) / 180, 6);
    }
    expect(seenDegrees(withSeenDegrees(WHOLE_FRAME, 99))).toBe(45);
  });

  test("any line becomes level or upright, by no more than half a quarter turn", () => {
    fc.assert(
      fc.property(anyFrame, anyPlace, anyPlace, (frame, from, to) => {
        const levelled = levelledFrame(frame, from, to);
        if (!levelled) return Math.hypot(to.x - from.x, to.y - from.y) < 0.011;
        const placing = placedAround({ x: 0, y: 0 }, { width: 1, height: 1 }, levelled);
        const [a, b] = [printAtPicture(placing, from.x, from.y), printAtPicture(placing, to.x, to.y)];
        // The whole turn between what was and what is, the short way round.
        const turn = 90 * (levelled.turns - frame.turns) + levelled.degrees - frame.degrees;
        const short = turn - 360 * Math.round(turn / 360);
        return (
          Math.min(Math.abs(a.x - b.x), Math.abs(a.y - b.y)) < 1e-9 &&
          Math.abs(levelled.degrees) <= 45 + 1e-9 &&
          Math.abs(short) <= 45 + 1e-9
        );
      }),
      { seed: 1, numRuns: 500 },
    );
  });
});

describe("cropping", () => {
  test("any crop brought anywhere stays inside the picture, in its proportions, and its other side stays", () => {
    fc.assert(
      fc.property(anyFrame, anySides, anyPlace, fc.option(anyNumber(0.3, 3)), (frame, sides, to, ratio) => {
        const start = ratio === null ? frame : withRatio(frame, picture, ratio);
        const before = cropOf(start, picture);
        const after = resizedCrop(start, picture, sides, to, ratio ?? undefined);
        const stays = corners(before, start).every(
          (corner, i) =>
            sides.across === 0 ||
            sides.down === 0 ||
            corner.across === sides.across ||
            corner.down === sides.down ||
            Math.hypot(corners(after, start)[i]!.x - corner.x, corners(after, start)[i]!.y - corner.y) < 1e-6,
        );
        const least = Math.min(LEAST_SIDE, before.width, before.height) * 0.3;
        return (
          isInside(after, start) &&
          stays &&
          after.width >= least &&
          after.height >= least &&
          (ratio === null || Math.abs(after.width / after.height / ratio - 1) < 1e-6)
        );
      }),
      { seed: 2, numRuns: 1000 },
    );
  });

  test("whatever a hand cuts, in whatever proportions and of however narrow a picture, is a frame that can be kept", () => {
    const anySize = fc.record({ width: fc.integer({ min: 1, max: 20000 }), height: fc.integer({ min: 1, max: 20000 }) });
    fc.assert(
      fc.property(anyFrame, anySize, anySides, anyPlace, anyNumber(0.1, 10), (frame, size, sides, to, ratio) => {
        const cut = [
          withRatio(frame, size, ratio),
          { ...frame, crop: movedCrop(frame, size, to) },
          { ...frame, crop: resizedCrop(frame, size, sides, to, undefined) },
          { ...frame, crop: resizedCrop(withRatio(frame, size, ratio), size, sides, to, ratio) },
        ];
        return cut.every((each) => FrameSchema.safeParse(each).success);
      }),
      { seed: 4, numRuns: 1000 },
    );
  });

  test("a corner goes where the hand brings it, where there is room and no proportions are kept", () => {
    const frame: Frame = { turns: 1, degrees: 5, mirrored: true, crop: { x: 0.5, y: 0.33, width: 0.2, height: 0.2 } };
    const placing = placedAround({ x: 0.5, y: 0.33 }, { width: 0.2, height: 0.2 }, frame);
    const to = pictureAtPrint(placing, 0.25, 0.23);
    const after = resizedCrop(frame, picture, { across: 1, down: 1 }, to, undefined);
    expect(after.width).toBeCloseTo(0.25, 9);
    expect(after.height).toBeCloseTo(0.23, 9);
  });

  test("a side takes the other with it where proportions are kept, the middle of the side across staying", () => {
    const frame: Frame = { ...WHOLE_FRAME, crop: { x: 0.5, y: 0.33, width: 0.3, height: 0.2 } };
    const after = resizedCrop(frame, picture, { across: 1, down: 0 }, { x: 0.71, y: 0.1 }, 1.5);
    expect(after.width).toBeCloseTo(0.36, 9);
    expect(after.height).toBeCloseTo(0.24, 9);
    expect(after.x - after.width / 2).toBeCloseTo(0.35, 9);
    expect(after.y).toBeCloseTo(0.33, 9);
  });

  test("moved it keeps its size, and slides along a border it is pushed against", () => {
    const frame: Frame = { ...WHOLE_FRAME, crop: { x: 0.5, y: 0.3, width: 0.4, height: 0.2 } };
    const moved = movedCrop(frame, picture, { x: 0.6, y: 3 });
    expect(moved).toMatchObject({ width: 0.4, height: 0.2 });
    expect(moved.x).toBeCloseTo(0.6, 9);
    expect(moved.y).toBeCloseTo(2 / 3 - 0.1, 9);
  });

  test("proportions are cut around the middle of what was cut out, inside the picture", () => {
    fc.assert(
      fc.property(anyFrame, anyNumber(0.2, 5), (frame, ratio) => {
        const crop = cropOf(withRatio(frame, picture, ratio), picture);
        return Math.abs(crop.width / crop.height / ratio - 1) < 1e-9 && isInside(crop, frame);
      }),
      { seed: 3, numRuns: 500 },
    );
    expect(cropOf(withRatio(WHOLE_FRAME, picture, 1), picture)).toEqual({ x: 0.5, y: 1 / 3, width: 2 / 3, height: 2 / 3 });
  });

  test("laid the other way and back, or tried in others, proportions cut what they cut at first", () => {
    const first = withRatio(WHOLE_FRAME, picture, 1.5);
    const back = [2 / 3, 1, 5 / 4, 1.5].reduce((frame, ratio) => withRatio(frame, picture, ratio), first);
    const [wanted, got] = [cropOf(first, picture), cropOf(back, picture)];
    for (const key of ["x", "y", "width", "height"] as const) expect(got[key]).toBeCloseTo(wanted[key], 9);
  });
});
