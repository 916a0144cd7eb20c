import { restingExposure } from "@/core/passes/exposure/fields";
import { packPath } from "@/core/brush/stroke";
import type { Move, MoveKind } from "@/core/passes/moves";

const path = packPath([
  { x: 0.1, y: 0.2, pressure: 1 },
  { x: 0.5, y: 0.6, pressure: 0.5 },
]);
/** A stroke over the middle of a picture. */
export const STROKE = { radius: 0.08, hardness: 0.3, flow: 0.6, pressure: "flow", erase: false, path } as const;

/** Of each kind something that moves many tones. */
export const MOVES: { [K in MoveKind]: Extract<Move, { kind: K }> } = {
  "scene-light": { kind: "scene-light", exposure: 0.3, shadows: 1.2, lights: -0.8 },
  balance: { kind: "balance", mired: 40, tint: -12 },
  separation: {
    kind: "separation",
    saturation: 1.4,
    ranges: [{ hueDeg: 140, widthDeg: 60, turnDeg: 20, chroma: 1.3 }],
    parting: { stays: { a: 0.05, b: 0.02 }, moves: { a: -0.1, b: 0.08 }, held: null, amount: 0.7 },
  },
  "another-mix": {
    kind: "another-mix",
    weights: { red: 1.2, green: -0.4, blue: 0.2 },
    sumHeld: true,
    huesOn: true,
    hueKnots: [{ hueDeg: 250, stops: -1 }],
  },
  placement: {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 3, to: 4 },
      { from: 10, to: 10 },
    ],
  },
  exposure: {
    kind: "exposure",
    ...restingExposure(),
    strokes: [{ ...STROKE, burns: false, ceiling: 1.5 }],
    flat: -0.3,
    zones: [0, 0, 0.2, 0.4, 0, 0, 0, -0.3, 0, 0, 0],
  },
  "edge-burn": { kind: "edge-burn", stops: -1.3, x: 0.1, y: -0.2, begins: 0.2, straight: 0.4, onPaper: true },
  contrast: { kind: "contrast", around: 4, grade: 4, black: 0.5, white: 9.5 },
  "contrast-mask": { kind: "contrast-mask", radius: 0.04, density: 0.6, edges: true },
  relief: { kind: "relief", fine: 0.8, medium: 0.5, broad: -0.4 },
  soften: { kind: "soften", radius: 0.01, spreads: "lights" },
  sharpen: { kind: "sharpen", radius: 0.0015, amount: 1.5, threshold: 0.01, lighter: 0.2, darker: 0.3 },
  tint: { kind: "tint", points: [{ zone: 3, hueDeg: 70, chroma: 0.06 }], replaces: false },
  "colour-return": { kind: "colour-return", saturation: 0.8 },
};
