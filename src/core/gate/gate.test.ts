import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { anyGate } from "../../../tests/anyRegion";
import { defaultPlan } from "../plan/defaultPlan";
import { passCurve } from "../passes/passKinds";
import { gateShare, hueShare, hardShoulders, openGate, zoneGate } from "./gate";
import { READY_GATES, ZONE_GATES } from "./readyGates";
import { anyNumber } from "../../../tests/anyNumber";

const zones = Array.from({ length: 1001 }, (_, i) => i / 100);

test("single zones sum to 1 everywhere, within 1e-6", () => {
  for (const zone of zones) expect(Math.abs(ZONE_GATES.reduce((sum, { gate }) => sum + gateShare(gate, zone), 0) - 1)).toBeLessThan(1e-6);
});

test("any gate lets through between nothing and all; inverted, the rest", () => {
  fc.assert(
    fc.property(anyGate, anyNumber(0, 10), (gate, zone) => {
      const share = gateShare(gate, zone);
      expect(share >= 0 && share <= 1).toBe(true);
      const plain = { ...gate, narrow: 0 };
      expect(gateShare(plain, zone) + gateShare({ ...plain, invert: !gate.invert }, zone)).toBeCloseTo(1, 9);
    }),
  );
});

test("narrowing multiplies the membership by itself", () => {
  const gate = { ...openGate(), from: 4, to: 6, low: 2, high: 3 };
  for (const zone of zones) {
    expect(gateShare({ ...gate, narrow: 1 }, zone)).toBeCloseTo(gateShare(gate, zone) ** 2, 12);
    expect(gateShare({ ...gate, narrow: 2 }, zone)).toBeCloseTo(gateShare(gate, zone) ** 4, 12);
  }
});

test("shoulders are a raised cosine or a straight line, level at both ends or not", () => {
  const gate = { ...openGate(), from: 4, to: 6, low: 2, high: 2 };
  expect(gateShare(gate, 3)).toBeCloseTo(0.5, 12);
  expect(gateShare(gate, 2.02)).toBeLessThan(0.001);
  expect(gateShare({ ...gate, linear: true }, 2.5)).toBeCloseTo(0.25, 12);
  expect(gateShare({ ...gate, low: 0 }, 3.999)).toBe(0);
});

test("ready gates: lights are lights, darks darks, and narrower ones let less through", () => {
  const total = ({ gate }: { gate: Parameters<typeof gateShare>[0] }) => zones.reduce((sum, zone) => sum + gateShare(gate, zone), 0);
  for (let group = 0; group < 9; group += 3) {
    const [wide, middle, narrow] = READY_GATES.slice(group, group + 3).map(total);
    expect(wide! > middle! && middle! > narrow!).toBe(true);
  }
  expect(gateShare(READY_GATES[0]!.gate, 10)).toBe(1);
  expect(gateShare(READY_GATES[6]!.gate, 0)).toBe(1);
});

describe("hue limits", () => {
  const limit = { centreDeg: 10, widthDeg: 20, shoulderDeg: 20, invert: false };
  test("go round the circle", () => {
    expect(hueShare(limit, 350)).toBe(1);
    expect(hueShare(limit, 30)).toBe(1);
    expect(hueShare(limit, 40)).toBeCloseTo(0.5, 9);
    expect(hueShare(limit, 320)).toBe(0);
    expect(hueShare({ ...limit, shoulderDeg: 0 }, 30.001)).toBe(0);
  });
});

describe("a pass through a gate", () => {
  const pass = defaultPlan().passes[0]!;
  pass.move = {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 5, to: 6 },
      { from: 10, to: 10 },
    ],
  };
  const curveOf = (gate: typeof pass.gate) => {
    const curve = passCurve({ ...pass, gate });
    if (!curve) throw new Error("a placement acts on tones");
    return curve;
  };
  test("acts in the middle of the gate as without one, and leaves what lies outside", () => {
    const [free, gated] = [curveOf(null), curveOf({ ...zoneGate(5), low: 2, high: 2 })];
    expect(gated(5)).toBeCloseTo(free(5), 12);
    for (const zone of [0, 2, 3, 7, 9]) expect(gated(zone)).toBe(zone);
  });
  test("keeps the order of tones, and acts in full where it is not said that an edge shows", () => {
    fc.assert(
      fc.property(anyGate, (drawn) => {
        const gate = { ...drawn, source: "entering" as const, blur: 0, narrow: 0, repair: [] };
        const [free, curve] = [curveOf(null), curveOf(gate)];
        const change = Math.max(...zones.map((zone) => Math.abs(free(zone) - zone)));
        const isHard = hardShoulders(gate, 1.2 * change).length > 0;
        zones.forEach((zone, i) => {
          if (i > 0) expect(curve(zone)).toBeGreaterThanOrEqual(curve(zones[i - 1]!) - 1e-9);
          if (!isHard) expect(curve(zone)).toBeCloseTo(zone + gateShare(gate, zone) * (free(zone) - zone), 6);
        });
      }),
      { seed: 4 },
    );
  });
});

test("it is told which shoulder is hard; an end of the scale has none", () => {
  const gate = { ...openGate(), from: 2, to: 7, low: 0.2, high: 1 };
  expect(hardShoulders(gate, 0.1)).toEqual([]);
  expect(hardShoulders(gate, 0.2)).toEqual(["low"]);
  expect(hardShoulders(gate, 2)).toEqual(["low", "high"]);
  expect(hardShoulders({ ...gate, from: 0 }, 2)).toEqual(["high"]);
  expect(hardShoulders({ ...gate, from: 0, to: 10 }, 2)).toEqual([]);
});
