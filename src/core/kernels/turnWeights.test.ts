import { expect, test } from "vitest";
import { TURN_PHASES, TURN_REACH, TURN_ROW, turnWeights } from "./turnWeights";

const rows = Array.from({ length: TURN_PHASES + 1 }, (_, phase) => turnWeights().subarray(phase * TURN_ROW, (phase + 1) * TURN_ROW));
const pixels = Array.from({ length: 2 * TURN_REACH }, (_, k) => k - (TURN_REACH - 1));

test("even tones, slopes and bends are told exactly at every place", () => {
  for (const [phase, weights] of rows.entries()) {
    const moment = (power: number) => pixels.reduce((sum, pixel, k) => sum + weights[k]! * (pixel - phase / TURN_PHASES) ** power, 0);
    expect(Math.abs(moment(0) - 1)).toBeLessThan(1e-6);
    expect(Math.abs(moment(1))).toBeLessThan(1e-6);
    expect(Math.abs(moment(2))).toBeLessThan(2e-6);
  }
});

test("on a pixel it is that pixel, and mirrored places have mirrored weights", () => {
  expect(rows[0]!.map((weight) => Math.round(1e6 * weight) / 1e6)).toEqual(Float32Array.of(0, 0, 1, 0, 0, 0, 0, 0));
  for (const [phase, weights] of rows.entries()) {
    const other = rows[TURN_PHASES - phase]!;
    for (let k = 0; k < 6; k++) expect(Math.abs(weights[k]! - other[5 - k]!)).toBeLessThan(1e-6);
    expect(weights[6]! + weights[7]!).toBe(0);
  }
});

test("waves of up to three in ten pixels keep their height to a twentieth, and slow ones to a hundredth", () => {
  const error = (waves: number) => {
    const squares = rows.map((weights, phase) => {
      const part = (turn: (angle: number) => number) =>
        pixels.reduce((sum, pixel, k) => sum + weights[k]! * turn(2 * Math.PI * waves * (pixel - phase / TURN_PHASES)), 0);
      return (part(Math.cos) - 1) ** 2 + part(Math.sin) ** 2;
    });
    return Math.sqrt(squares.reduce((sum, square) => sum + square, 0) / squares.length);
  };
  expect(error(0.3)).toBeLessThan(0.05);
  expect(error(0.1)).toBeLessThan(0.003);
});
