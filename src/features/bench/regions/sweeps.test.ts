import { expect, test } from "vitest";
import type { LikenessShape } from "@/core/region/region";
import { sweepsOf, withoutSweep } from "./sweeps";

const line = (x: number, y: number, count: number) => Array.from({ length: count }, (_, i) => ({ x: x + 0.01 * i, y }));
const shape: LikenessShape = {
  id: "l",
  combine: "add",
  kind: "likeness",
  touched: [...line(0.1, 0.2, 5), ...line(0.5, 0.2, 3), ...line(0.1, 0.6, 1)],
  not: line(0.8, 0.8, 4),
  tolerance: 0.04,
  connected: true,
  edges: "colour",
  apart: "place",
};

test("places are told apart by sweeps, in the order they were touched, what is meant first", () => {
  expect(sweepsOf(shape).map(({ side, places }) => [side, places.length])).toEqual([
    ["touched", 5],
    ["touched", 3],
    ["touched", 1],
    ["not", 4],
  ]);
  expect(sweepsOf({ touched: [], not: [] })).toEqual([]);
});

test("a sweep is taken back alone", () => {
  const sweeps = sweepsOf(shape);
  for (const sweep of sweeps) {
    const left = sweepsOf(withoutSweep(shape, sweep)).map(({ places }) => places);
    expect(left).toEqual(sweeps.filter((other) => other !== sweep).map(({ places }) => places));
  }
});
