import { expect, test } from "vitest";
import { brightAtFrame } from "./brightAtFrame";

const size = { width: 260, height: 170 };
function picture(marks: (x: number, y: number) => number | undefined): Float32Array {
  return Float32Array.from({ length: 260 * 170 }, (_, i) => marks(i % 260, Math.floor(i / 260)) ?? 0.4);
}

test("a bright patch at the frame is found where it lies, one inside is not", () => {
  const found = brightAtFrame(
    picture((x, y) => (x > 244 && y > 60 && y < 80 ? 0.85 : Math.hypot(x - 120, y - 80) < 12 ? 0.9 : undefined)),
    size,
  );
  expect(found).toHaveLength(1);
  expect(found[0]!.x).toBeCloseTo(0.97, 1);
  expect(found[0]!.y).toBeCloseTo(70 / 170, 1);
});

test("a light sky along the whole border is no patch, nor is a speck, nor one that is not light", () => {
  expect(
    brightAtFrame(
      picture((_, y) => (y < 70 ? 0.78 : 0.72)),
      size,
    ),
  ).toEqual([]);
  expect(
    brightAtFrame(
      picture((x, y) => (x < 2 && y < 3 ? 0.9 : undefined)),
      size,
    ),
  ).toEqual([]);
  expect(
    brightAtFrame(
      picture((x, y) => (x < 20 && y < 20 ? 0.55 : undefined)),
      size,
    ),
  ).toEqual([]);
});
