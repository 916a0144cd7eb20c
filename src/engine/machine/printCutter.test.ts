import { describe, expect, test } from "vitest";
import { onPart, pictureArea, pictureAtPrint, placingOf, WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import { TURN_PHASES, TURN_ROW, turnWeights } from "@/core/kernels/turnWeights";
import { PrintCutter } from "./printCutter";

const picture = { width: 420, height: 300 };
const cutter = new PrintCutter();
const planeOf = (tone: (x: number, y: number) => number, { width, height } = picture) =>
  Float32Array.from({ length: width * height }, (_, i) => tone((i % width) + 0.5, Math.floor(i / width) + 0.5));
const numbered = planeOf((x, y) => (y * 1000 + x) / 1e6);
const straightened: Frame = { turns: 0, degrees: 3.7, mirrored: false, crop: null };

/** Read between pixels in doubles, weight by weight, far from the kernel. */
function slowly(plane: Float32Array, x: number, y: number): number {
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const weights = (part: number) =>
    turnWeights()
      .subarray(Math.round(part * TURN_PHASES) * TURN_ROW)
      .subarray(0, 6);
  const [across, down] = [weights(x - 0.5 - left), weights(y - 0.5 - top)];
  let sum = 0;
  for (let row = 0; row < 6; row++) {
    for (let column = 0; column < 6; column++) {
      const inside = {
        x: Math.min(Math.max(left - 2 + column, 0), picture.width - 1),
        y: Math.min(Math.max(top - 2 + row, 0), picture.height - 1),
      };
      sum += across[column]! * down[row]! * plane[inside.y * picture.width + inside.x]!;
    }
  }
  return sum;
}

describe("pixels that lie on pixels", () => {
  test.each([
    { ...WHOLE_FRAME },
    { ...WHOLE_FRAME, turns: 1 as const },
    { ...WHOLE_FRAME, turns: 2 as const, mirrored: true },
    { turns: 3 as const, degrees: 0, mirrored: true, crop: { x: 0.41, y: 0.37, width: 0.3, height: 0.5 } },
  ])("are taken over to the last bit: %o", (frame) => {
    const placing = placingOf(frame, picture);
    const print = cutter.cut(numbered, picture, placing);
    for (let v = 0; v < placing.height; v += 7) {
      for (let u = 0; u < placing.width; u += 5) {
        const { x, y } = pictureAtPrint(placing, u + 0.5, v + 0.5);
        expect(print[v * placing.width + u]).toBe(numbered[Math.floor(y) * picture.width + Math.floor(x)]);
      }
    }
  });
});

describe("a straightened print", () => {
  test("is the weighted sum of what lies around each place, borders and all", () => {
    const noise = planeOf((x, y) => 0.2 + 0.6 * ((Math.sin(x * 12.9898 + y * 78.233) * 43758.5453) % 1) ** 2);
    const placing = placingOf(straightened, picture);
    const print = cutter.cut(noise, picture, placing);
    let worst = 0;
    for (let v = 0; v < placing.height; v += 3) {
      for (let u = v % 4; u < placing.width; u += 4) {
        const { x, y } = pictureAtPrint(placing, u + 0.5, v + 0.5);
        const wanted = Math.min(Math.max(slowly(noise, x, y), 0), 1);
        worst = Math.max(worst, Math.abs(print[v * placing.width + u]! - wanted));
      }
    }
    expect(worst).toBeLessThan(2e-5); // doubles beside floats
  });

  test("shows a smooth picture where it lies: within a thousandth, at any angle, turned and mirrored", () => {
    const wave = (x: number, y: number) => 0.5 + 0.3 * Math.sin(x / 6) * Math.cos(y / 5);
    const plane = planeOf(wave);
    for (const frame of [
      straightened,
      { ...straightened, degrees: -45, turns: 1 as const },
      { turns: 2 as const, degrees: 0.05, mirrored: true, crop: { x: 0.5, y: 0.35, width: 0.7, height: 0.4 } },
    ]) {
      const placing = placingOf(frame, picture);
      const print = cutter.cut(plane, picture, placing);
      let worst = 0;
      for (let v = 6; v < placing.height - 6; v++) {
        for (let u = 6; u < placing.width - 6; u++) {
          const { x, y } = pictureAtPrint(placing, u + 0.5, v + 0.5);
          worst = Math.max(worst, Math.abs(print[v * placing.width + u]! - wave(x, y)));
        }
      }
      expect(worst).toBeLessThan(1e-3);
    }
  });

  test("shows no pattern in a sky: a slope and a bend are told to the last digits", () => {
    const sky = (x: number, y: number) => 0.9 - 0.001 * y - 1e-6 * (x - 200) ** 2;
    const placing = placingOf(straightened, picture);
    const print = cutter.cut(planeOf(sky), picture, placing);
    let worst = 0;
    for (let v = 6; v < placing.height - 6; v++) {
      for (let u = 6; u < placing.width - 6; u++) {
        const { x, y } = pictureAtPrint(placing, u + 0.5, v + 0.5);
        worst = Math.max(worst, Math.abs(print[v * placing.width + u]! - sky(x, y)));
      }
    }
    expect(worst).toBeLessThan(2e-6); // half a 1024th of a pixel down this slope is 5e-7
  });

  test("keeps even tones even, black and paper what they are, and nothing outside them", () => {
    for (const tone of [0, 0.18, 1]) {
      const print = cutter.cut(new Float32Array(picture.width * picture.height).fill(tone), picture, placingOf(straightened, picture));
      expect(Math.max(...print.map((value) => Math.abs(value - tone)))).toBeLessThan(3e-7);
    }
    const edges = planeOf((x) => (x % 40 < 20 ? 0 : 1));
    const print = cutter.cut(edges, picture, placingOf(straightened, picture));
    expect(Math.min(...print)).toBe(0);
    expect(Math.max(...print)).toBe(1);
  });

  test("is the same in one go, in rows, and out of the part of the picture it needs", () => {
    const plane = planeOf((x, y) => 0.5 + 0.4 * Math.sin(x * y));
    const placing = placingOf({ ...straightened, crop: { x: 0.4, y: 0.3, width: 0.5, height: 0.3 } }, picture);
    const whole = cutter.cut(plane, picture, placing);
    const rows = cutter.cut(plane, picture, placing, 31, 67);
    expect(rows).toEqual(whole.subarray(31 * placing.width, 67 * placing.width));
    // However it is cut up: not one bit hangs on where a piece begins.
    for (let from = 0; from < placing.height; from += 11) {
      const piece = cutter.cut(plane, picture, placing, from, Math.min(from + 11, placing.height));
      expect(piece).toEqual(whole.subarray(from * placing.width, Math.min(from + 11, placing.height) * placing.width));
    }
    const area = pictureArea(placing, picture, 6);
    const part = new Float32Array(area.width * area.height);
    for (let y = 0; y < area.height; y++) {
      const at = (area.y + y) * picture.width + area.x;
      part.set(plane.subarray(at, at + area.width), y * area.width);
    }
    const cut = cutter.cut(part, area, onPart(placing, area));
    let worst = 0;
    cut.forEach((value, i) => (worst = Math.max(worst, Math.abs(value - whole[i]!))));
    expect(worst).toBeLessThan(2e-3); // the last digits of a place may tell another 1024th of a pixel
  });
});
