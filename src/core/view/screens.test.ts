import { expect, test } from "vitest";
import { drawScreens } from "./screens";

const WIDTH = 24;

/** Grey levels of a sheet of one tone after its screens are drawn over level 77. */
function screened(tone: number): number[] {
  const rgba = new Uint8Array(4 * WIDTH * WIDTH).fill(77);
  drawScreens(rgba, new Float32Array(WIDTH * WIDTH).fill(tone), WIDTH);
  return [...rgba].filter((_, i) => i % 4 === 0);
}
const drawnShare = (tone: number) => screened(tone).filter((level) => level !== 77).length / WIDTH ** 2;

test("only full black and bare paper are screened, each sparsely", () => {
  for (const tone of [0.002, 0.1, 0.5, 0.9, 0.998]) expect(drawnShare(tone)).toBe(0);
  for (const end of [0, 1]) {
    expect(drawnShare(end)).toBeGreaterThan(0.08);
    expect(drawnShare(end)).toBeLessThan(0.25);
  }
});

test("lines are lighter than black, dots darker than paper, and the patterns are not the same", () => {
  const black = screened(0).map((level) => level !== 77);
  const white = screened(1).map((level) => level !== 77);
  expect(Math.min(...screened(0).filter((level) => level !== 77))).toBeGreaterThan(100);
  expect(Math.max(...screened(1).filter((level) => level !== 77))).toBeLessThan(155);
  expect(black).not.toEqual(white);
  // Lines: every row is met. Dots: some rows are free.
  const rowsMet = (drawn: boolean[]) => new Set(drawn.flatMap((is, i) => (is ? [Math.floor(i / WIDTH)] : []))).size;
  expect(rowsMet(black)).toBe(WIDTH);
  expect(rowsMet(white)).toBeLessThan(WIDTH / 2);
});
