import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { anyNumber } from "../../../tests/anyNumber";
import { anyFrame } from "../../../tests/anyPlan";
import {
  cropOf,
  isPixelForPixel,
  onPart,
  partOfPlacing,
  pictureArea,
  pictureAtPrint,
  placingAt,
  placingOf,
  printAtPicture,
  printSizeAt,
  rowsInside,
  WHOLE_FRAME,
  type Frame,
} from "./frame";

const anySize = fc.record({ width: fc.integer({ min: 1, max: 900 }), height: fc.integer({ min: 1, max: 900 }) });

/** The pixels of a picture as words that tell where they came from, turned, mirrored and cut by hand. */
const pixels = (width: number, height: number) =>
  Array.from({ length: height }, (_, y) => Array.from({ length: width }, (_, x) => `${x},${y}`));
const turned = (rows: string[][]) => rows[0]!.map((_, x) => rows.map((row) => row[x]!).reverse());
const mirrored = (rows: string[][]) => rows.map((row) => row.toReversed());

function cutByPlacing(frame: Frame, width: number, height: number): string[][] {
  const placing = placingOf(frame, { width, height });
  return Array.from({ length: placing.height }, (_, v) =>
    Array.from({ length: placing.width }, (_, u) => {
      const { x, y } = pictureAtPrint(placing, u + 0.5, v + 0.5);
      return `${x - 0.5},${y - 0.5}`;
    }),
  );
}

describe("quarter turns and mirror", () => {
  for (const turns of [0, 1, 2, 3] as const) {
    for (const isMirrored of [false, true]) {
      test(`${turns} turns${isMirrored ? ", mirrored" : ""}: each pixel is one of the picture, where turning it by hand puts it`, () => {
        let wanted = pixels(5, 3);
        for (let k = 0; k < turns; k++) wanted = turned(wanted);
        if (isMirrored) wanted = mirrored(wanted);
        const frame = { ...WHOLE_FRAME, turns, mirrored: isMirrored };
        expect(cutByPlacing(frame, 5, 3)).toEqual(wanted);
        expect(isPixelForPixel(placingOf(frame, { width: 5, height: 3 }))).toBe(true);
      });
    }
  }

  test("a crop of the turned picture is the piece of it cut by hand", () => {
    // Columns 2 to 6 and rows 1 to 3 of a picture of 10 by 8: middle (4, 2), long edge 10.
    const frame: Frame = { turns: 1, degrees: 0, mirrored: true, crop: { x: 0.4, y: 0.2, width: 0.2, height: 0.4 } };
    const piece = pixels(10, 8)
      .slice(1, 3)
      .map((row) => row.slice(2, 6));
    expect(cutByPlacing(frame, 10, 8)).toEqual(mirrored(turned(piece)));
  });
});

test("the picture turns clockwise: what was above comes to the right", () => {
  const placing = placingOf(
    { ...WHOLE_FRAME, degrees: 10, crop: { x: 0.5, y: 0.5, width: 0.4, height: 0.4 } },
    { width: 1000, height: 1000 },
  );
  const above = printAtPicture(placing, 500, 400);
  expect(above.x - 200).toBeCloseTo(100 * Math.sin((10 * Math.PI) / 180), 6);
  expect(above.y - 200).toBeCloseTo(-100 * Math.cos((10 * Math.PI) / 180), 6);
});

test("straightened and not cut, a print keeps its proportions, is inside the picture and touches its border", () => {
  for (const turns of [0, 1, 2, 3] as const) {
    for (const degrees of [-45, -12, 0.3, 7, 45]) {
      const picture = { width: 1500, height: 1000 };
      const { width, height } = cropOf({ ...WHOLE_FRAME, turns, degrees }, picture);
      expect(Math.max(width, height) / Math.min(width, height)).toBeCloseTo(1.5, 9);
      expect(width > height).toBe(turns % 2 === 0);
      const radians = (degrees * Math.PI) / 180;
      const [long, short] = [Math.max(width, height), Math.min(width, height)];
      const across = long * Math.cos(radians) + short * Math.abs(Math.sin(radians));
      const down = long * Math.abs(Math.sin(radians)) + short * Math.cos(radians);
      expect(across).toBeLessThanOrEqual(1 + 1e-9);
      expect(down).toBeLessThanOrEqual(1000 / 1500 + 1e-9);
      expect(Math.min(1 - across, 1000 / 1500 - down)).toBeLessThan(1e-9);
    }
  }
});

test("any frame gives a print of a pixel at least, all of it inside the picture", () => {
  fc.assert(
    fc.property(anyFrame, anySize, (frame, picture) => {
      const placing = placingOf(frame, picture);
      const { width, height } = placing;
      if (!(width >= 1 && height >= 1)) return false;
      // A turned print is a whole number of pixels: its corners may lie half a pixel each way beyond what is cut.
      const slack = frame.degrees === 0 ? 1e-6 : 1.5;
      return [0, width].every((u) =>
        [0, height].every((v) => {
          const { x, y } = pictureAtPrint(placing, u, v);
          return x >= -slack && x <= picture.width + slack && y >= -slack && y <= picture.height + slack;
        }),
      );
    }),
    { seed: 1, numRuns: 2000 },
  );
});

test("not turned but by quarters, the pixels of any crop are pixels of the picture", () => {
  fc.assert(
    fc.property(anyFrame, anySize, (frame, picture) => isPixelForPixel(placingOf({ ...frame, degrees: 0 }, picture))),
    { seed: 2, numRuns: 1000 },
  );
});

test("a crop told by whole pixels is those pixels", () => {
  fc.assert(
    fc.property(anySize, fc.nat(), fc.nat(), fc.nat(), fc.nat(), (picture, a, b, c, d) => {
      const long = Math.max(picture.width, picture.height);
      const [left, top] = [a % picture.width, b % picture.height];
      const [width, height] = [1 + (c % (picture.width - left)), 1 + (d % (picture.height - top))];
      const crop = { x: (left + width / 2) / long, y: (top + height / 2) / long, width: width / long, height: height / long };
      const placing = placingOf({ ...WHOLE_FRAME, crop }, picture);
      return placing.x === left && placing.y === top && placing.width === width && placing.height === height;
    }),
    { seed: 7, numRuns: 2000 },
  );
});

test("from print to picture and back is where one began, at full size, smaller, and in a part", () => {
  fc.assert(
    fc.property(anyFrame, anySize, anyNumber(0, 1), anyNumber(0, 1), (frame, picture, u, v) => {
      const full = placingOf(frame, picture);
      const smaller = { width: Math.max(1, picture.width >> 1), height: Math.max(1, picture.height >> 1) };
      const small = placingAt(full, picture, smaller, printSizeAt(full, picture, smaller));
      const same = [full, small, onPart(partOfPlacing(small, 3, 4, { width: 2, height: 2 }), { x: 5, y: 6 })].every((placing) => {
        const there = pictureAtPrint(placing, u * placing.width, v * placing.height);
        const back = printAtPicture(placing, there.x, there.y);
        return Math.hypot(back.x - u * placing.width, back.y - v * placing.height) < 1e-6 * (placing.width + placing.height);
      });
      // The same part of the print is the same part of the picture, whatever their sizes.
      const [a, b] = [full, small].map((placing) => pictureAtPrint(placing, u * placing.width, v * placing.height)) as [never, never];
      const { x, y } = a as { x: number; y: number };
      const other = b as { x: number; y: number };
      return (
        same &&
        Math.abs(x / picture.width - other.x / smaller.width) < 1e-9 &&
        Math.abs(y / picture.height - other.y / smaller.height) < 1e-9
      );
    }),
    { seed: 3, numRuns: 1000 },
  );
});

test("a part of a print begins where it begins on the print, and a part of the picture leaves away what is before it", () => {
  const placing = placingOf(
    { turns: 1, degrees: 5, mirrored: true, crop: { x: 0.5, y: 0.4, width: 0.3, height: 0.2 } },
    { width: 800, height: 600 },
  );
  const part = partOfPlacing(placing, 30, 20, { width: 10, height: 5 });
  const [whole, there] = [pictureAtPrint(placing, 31, 22), pictureAtPrint(part, 1, 2)];
  expect(there.x).toBeCloseTo(whole.x, 9);
  expect(there.y).toBeCloseTo(whole.y, 9);
  expect(part).toMatchObject({ width: 10, height: 5 });
  expect(pictureAtPrint(onPart(part, { x: 100, y: 50 }), 1, 2).x).toBeCloseTo(there.x - 100, 9);
});

test("the columns of each row that lie in the print are those whose middles do, looked at one by one", () => {
  fc.assert(
    fc.property(
      anyFrame,
      fc.record({ width: fc.integer({ min: 1, max: 40 }), height: fc.integer({ min: 1, max: 40 }) }),
      (frame, picture) => {
        const placing = placingOf(frame, picture);
        const { from, end } = rowsInside(placing, picture);
        for (let y = 0; y < picture.height; y++) {
          for (let x = 0; x < picture.width; x++) {
            const { x: u, y: v } = printAtPicture(placing, x + 0.5, y + 0.5);
            const distance = Math.min(u, v, placing.width - u, placing.height - v);
            if (Math.abs(distance) > 1e-5 && distance > 0 !== (x >= from[y]! && x < end[y]!)) return false;
          }
        }
        return true;
      },
    ),
    { seed: 4, numRuns: 500 },
  );
});

test("quarter turns and crops have as many pixels inside as the print has", () => {
  fc.assert(
    fc.property(anyFrame, anySize, (frame, picture) => {
      const placing = placingOf({ ...frame, degrees: 0 }, picture);
      const { from, end } = rowsInside(placing, picture);
      return end.reduce((sum, column, row) => sum + column - from[row]!, 0) === placing.width * placing.height;
    }),
    { seed: 5, numRuns: 500 },
  );
});

test("the area a print is made of holds all its points, and no more than it must", () => {
  fc.assert(
    fc.property(anyFrame, anySize, (frame, picture) => {
      const placing = placingOf(frame, picture);
      const area = pictureArea(placing, picture, 0);
      const corners = [0, placing.width].flatMap((u) => [0, placing.height].map((v) => pictureAtPrint(placing, u, v)));
      const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
      const holds = (from: number, count: number, whole: number, values: number[]) =>
        from >= 0 &&
        count >= 1 &&
        from + count <= whole &&
        from <= Math.max(Math.min(...values), 0) + 1e-5 &&
        from + count >= Math.min(Math.max(...values), whole) - 1e-5;
      return holds(area.x, area.width, picture.width, xs) && holds(area.y, area.height, picture.height, ys);
    }),
    { seed: 6, numRuns: 1000 },
  );
});
