import fc from "fast-check";
import { expect, test } from "vitest";
import type { Vector3 } from "../colour/matrix3";
import { pulledWeights } from "./pullWeights";
import { LUMINANCE_WEIGHTS, WEIGHT_LIMIT, weightSum, type Weights } from "./weights";

const light = ({ red, green, blue }: Weights, [r, g, b]: Vector3) => red * r + green * g + blue * b;
const ORANGE: Vector3 = [0.5, 0.2, 0.05];

test("the colour becomes as much lighter as it is pulled, and neutrals stay", () => {
  for (const stops of [-0.8, -0.2, 0.3, 0.7]) {
    const pulled = pulledWeights(LUMINANCE_WEIGHTS, ORANGE, stops)!;
    expect(light(pulled, ORANGE) / light(LUMINANCE_WEIGHTS, ORANGE)).toBeCloseTo(2 ** stops, 9);
    expect(weightSum(pulled)).toBeCloseTo(1, 12);
  }
  expect(pulledWeights(LUMINANCE_WEIGHTS, ORANGE, 0)).toEqual(LUMINANCE_WEIGHTS);
});

test("no other weights of that sum that do it lie nearer", () => {
  const pulled = pulledWeights(LUMINANCE_WEIGHTS, ORANGE, 0.5)!;
  const away = ({ red, green, blue }: Weights) =>
    Math.hypot(red - LUMINANCE_WEIGHTS.red, green - LUMINANCE_WEIGHTS.green, blue - LUMINANCE_WEIGHTS.blue);
  // Along the line of weights that keep both the sum and the colour's light.
  const line = [ORANGE[1] - ORANGE[2], ORANGE[2] - ORANGE[0], ORANGE[0] - ORANGE[1]] as const;
  for (const step of [-0.2, -0.01, 0.01, 0.2]) {
    const other = { red: pulled.red + step * line[0], green: pulled.green + step * line[1], blue: pulled.blue + step * line[2] };
    expect(light(other, ORANGE)).toBeCloseTo(light(pulled, ORANGE), 9);
    expect(away(other)).toBeGreaterThan(away(pulled));
  }
});

test("stops at the limits of weights, for any colour and any pull; a neutral cannot be pulled", () => {
  const channel = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(channel, channel, channel), fc.double({ min: -5, max: 5, noNaN: true }), (colour, stops) => {
      const pulled = pulledWeights({ red: 1.9, green: -0.8, blue: -0.1 }, colour, stops);
      if (!pulled) return;
      for (const weight of Object.values(pulled)) expect(Math.abs(weight)).toBeLessThanOrEqual(WEIGHT_LIMIT + 1e-9);
      expect(weightSum(pulled)).toBeCloseTo(1, 9);
    }),
    { seed: 21, numRuns: 300 },
  );
  expect(pulledWeights(LUMINANCE_WEIGHTS, [0.3, 0.3, 0.3], 1)).toBeUndefined();
  expect(pulledWeights(LUMINANCE_WEIGHTS, [0, 0, 0], 1)).toBeUndefined();
});
