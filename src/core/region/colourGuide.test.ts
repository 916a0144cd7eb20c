import { expect, test } from "vitest";
import { linearP3ToOklab } from "../colour/oklab";
import { distanceFrom } from "./colourGuide";
import { guideOf, LIGHTNESS_WEIGHT, MOST_GUIDING, type LabPicture } from "./likeness";
import type { LikenessShape } from "./region";

let state = 3;
const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
const N = 20000;
const planes = [0, 1, 2].map(() => Float32Array.from({ length: N }, random)) as [Float32Array, Float32Array, Float32Array];
const [red, green, blue] = planes;

test("distances are those from the nearest of the colours, in OKLab, lightness by half, up to the reach", () => {
  const colours = [
    [0.6, 0.1, 0.05],
    [0.3, -0.1, 0.1],
    [0.8, 0.02, -0.1],
  ] as const;
  const reach = 0.3;
  const made = distanceFrom({ red, green, blue }, { colours, reach });
  let beyond = 0;
  for (let i = 0; i < N; i++) {
    const [l, a, b] = linearP3ToOklab([red[i]!, green[i]!, blue[i]!]);
    const nearest = Math.min(...colours.map(([m, c, d]) => Math.hypot(LIGHTNESS_WEIGHT * (l - m), a - c, b - d)));
    expect(Math.abs(made[i]! - Math.min(nearest / reach, 1))).toBeLessThan(1e-4);
    if (made[i] === 1) beyond++;
  }
  expect(beyond).toBeGreaterThan(10);
});

test("a guide of no colours tells nothing apart, and one of many keeps those furthest from one another", () => {
  expect([...new Set(distanceFrom({ red, green, blue }, { colours: [], reach: 0.1 }))]).toEqual([1]);
  const [width, height] = [40, 1];
  const hues = Array.from({ length: width }, (_, i) => (i < 30 ? 0.001 * i : Math.PI * (0.1 + 0.15 * (i - 30))));
  const picture: LabPicture = {
    width,
    height,
    lightness: new Float32Array(width).fill(0.6),
    a: Float32Array.from(hues, (hue) => 0.2 * Math.cos(hue)),
    b: Float32Array.from(hues, (hue) => 0.2 * Math.sin(hue)),
  };
  const touched = Array.from({ length: width }, (_, i) => ({ x: (i + 0.5) / width, y: 0.5 / width }));
  const shape: LikenessShape = {
    id: "l",
    combine: "add",
    kind: "likeness",
    touched,
    not: [],
    tolerance: 0.1,
    connected: false,
    edges: "colour",
    apart: "place",
  };
  const { colours, reach } = guideOf(picture, shape);
  expect(reach).toBe(0.2);
  expect(colours.length).toBeLessThanOrEqual(MOST_GUIDING);
  // All ten hues that stand apart are among them.
  for (let i = 30; i < width; i++) expect(colours.some(([, a, b]) => Math.hypot(a - picture.a[i]!, b - picture.b[i]!) < 1e-6)).toBe(true);
});
