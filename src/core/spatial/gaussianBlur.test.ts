import { expect, test } from "vitest";
import { gaussianBlur, gaussianReach } from "./gaussianBlur";

/** The same by the plain double sum, what lies outside left out. */
function byHand(plane: Float32Array, width: number, height: number, sigma: number): number[] {
  const reach = gaussianReach(sigma);
  return Array.from(plane, (_, i) => {
    let [sum, weights] = [0, 0];
    for (let dy = -reach; dy <= reach; dy++) {
      for (let dx = -reach; dx <= reach; dx++) {
        const [x, y] = [(i % width) + dx, Math.floor(i / width) + dy];
        if (x < 0 || y < 0 || x >= width || y >= height) continue;
        const weight = Math.exp(-(dx * dx + dy * dy) / (2 * sigma * sigma));
        sum += weight * plane[y * width + x]!;
        weights += weight;
      }
    }
    return sum / weights;
  });
}

test.each([
  [1, 1, 1.3],
  [3, 7, 0.9],
  [4, 4, 2],
  [9, 2, 5],
  [17, 13, 1.1],
  [32, 5, 0.3],
])("%i × %i, %f wide, is the plain sum", (width, height, sigma) => {
  const plane = Float32Array.from({ length: width * height }, (_, i) => ((i * 7919) % 101) / 101);
  const before = plane.slice();
  const wanted = byHand(plane, width, height, sigma);
  gaussianBlur(plane, { width, height }, sigma).forEach((value, i) => expect(Math.abs(value - wanted[i]!)).toBeLessThan(2e-6));
  expect(plane).toEqual(before);
});

test("a level plane stays level to its borders, and one too narrow to reach a neighbour is a copy", () => {
  for (const value of gaussianBlur(new Float32Array(99).fill(0.37), { width: 11, height: 9 }, 2.4)) expect(value).toBeCloseTo(0.37, 6);
  const plane = Float32Array.of(0, 1, 0.5);
  expect(gaussianBlur(plane, { width: 3, height: 1 }, 0.1)).toEqual(plane);
});
