import fc from "fast-check";
import { packPath, PRESSURES, type Stroke } from "@/core/brush/stroke";
import { GATE_SOURCES, type Gate } from "@/core/gate/gate";
import { packLevels } from "@/core/region/pictureLevels";
import { COMBINES, type Region, type Shape } from "@/core/region/region";
import { anyNumber } from "./anyNumber";

// Any valid region and gate, for property tests.

const number = (min: number, max: number) => anyNumber(min, max);
/** From nothing to `max`, the smallest numbers there are among them. */
export const small = (max: number) =>
  fc.oneof(
    { weight: 2, arbitrary: fc.constantFrom(0, Number.MIN_VALUE, 1e-200, 1e-162, 1e-30, 1e-9, 1e-5) },
    { weight: 5, arbitrary: number(0, max) },
  );
const place = fc.record({ x: number(-0.3, 1.3), y: number(-0.3, 1.3) });
const feather = { inner: small(0.2), outer: small(0.2) };
const base = { id: fc.string({ minLength: 1, maxLength: 8 }), combine: fc.constantFrom(...COMBINES) };

export const anyStroke = fc.record({
  radius: fc.oneof(number(0.0001, 0.003), number(0.003, 0.2)),
  hardness: number(0, 1),
  flow: number(0, 1),
  pressure: fc.constantFrom(...PRESSURES),
  erase: fc.boolean(),
  path: fc
    .array(fc.record({ x: number(-0.4, 1.4), y: number(-0.4, 1.4), pressure: number(0, 1) }), { minLength: 1, maxLength: 6 })
    .map(packPath),
});

export const anyShape: fc.Arbitrary<Shape> = fc.oneof(
  fc.record({
    ...base,
    ...feather,
    kind: fc.constant("outline" as const),
    corners: fc.array(fc.record({ x: number(-0.3, 1.3), y: number(-0.3, 1.3), smooth: fc.boolean() }), { minLength: 3, maxLength: 9 }),
  }),
  fc.record({
    ...base,
    ...feather,
    kind: fc.constant("oval" as const),
    x: number(-0.3, 1.3),
    y: number(-0.3, 1.3),
    across: small(0.6),
    down: small(0.6),
    turnDeg: number(-180, 180),
  }),
  fc.record({ ...base, kind: fc.constant("gradient" as const), from: place, to: place, twoSided: fc.boolean() }),
  fc.record({
    ...base,
    kind: fc.constant("brush" as const),
    x: number(-0.2, 0.2),
    y: number(-0.2, 0.2),
    strokes: fc.array(anyStroke, { maxLength: 5 }),
    beneath: fc.boolean(),
  }),
  fc.record({
    ...base,
    kind: fc.constant("likeness" as const),
    touched: fc.array(place, { maxLength: 4 }),
    not: fc.array(place, { maxLength: 2 }),
    tolerance: number(0.005, 0.6),
    connected: fc.boolean(),
    edges: fc.constantFrom("tone" as const, "colour" as const),
    apart: fc.constantFrom("colour" as const, "place" as const),
  }),
);

const anyPicture: fc.Arbitrary<Shape> = fc
  .record({ ...base, size: fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })), seed: fc.nat(255) })
  .map(({ size: [width, height], seed, ...shape }) => ({
    ...shape,
    kind: "picture",
    width,
    height,
    levels: packLevels(Uint8Array.from({ length: width * height }, (_, i) => (seed * (i + 1)) % 256)),
  }));

export const anyRegion: fc.Arbitrary<Omit<Region, "id">> = fc.record({
  name: fc.constant("Region"),
  shapes: fc
    .array(fc.oneof({ weight: 5, arbitrary: anyShape }, { weight: 1, arbitrary: anyPicture }), { maxLength: 4 })
    .map((shapes) => shapes.map((shape, i) => ({ ...shape, id: `${i}` }))),
  soften: small(0.2),
  fit: small(0.1),
  invert: fc.boolean(),
  density: number(0, 1),
});

const weight = number(-2, 2);

export const anyGate: fc.Arbitrary<Gate> = fc
  .record({
    source: fc.constantFrom(...GATE_SOURCES),
    weights: fc.record({ red: weight, green: weight, blue: weight }),
    ends: fc.tuple(number(0, 10), number(0, 10)),
    low: small(10),
    high: small(10),
    linear: fc.boolean(),
    invert: fc.boolean(),
    narrow: fc.nat(4),
    blur: small(0.1),
    repair: fc.oneof({ weight: 3, arbitrary: fc.constant<Stroke[]>([]) }, { weight: 1, arbitrary: fc.array(anyStroke, { maxLength: 3 }) }),
    hue: fc.option(fc.record({ centreDeg: number(0, 360), widthDeg: small(180), shoulderDeg: small(180), invert: fc.boolean() })),
  })
  .map(({ ends: [a, b], ...gate }) => ({ ...gate, from: Math.min(a, b), to: Math.max(a, b) }));
