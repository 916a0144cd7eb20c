import { restingExposure } from "./fields";
import type { ExposureStroke } from "../../steps/placedStops";
import { exposedLuminance } from "../../colour/exposedLuminance";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { layStrokes } from "../../brush/layStrokes";
import { packPath } from "../../brush/stroke";
import { wholeGrid } from "../../spatial/grid";
import { endShare, exposedZone, exposureGoal, keepsOrder, limitedStops, strokesOf, toneStops, withZoneStops, zoneStops } from "./exposure";
import { anyNumber } from "../../../../tests/anyNumber";

const stops = anyNumber(-4, 4);
const zone = anyNumber(0, 10);

test("dodged then burned as much, a tone is what it was, within 1e-5", () => {
  fc.assert(fc.property(zone, stops, (z, e) => Math.abs(exposedZone(exposedZone(z, e), -e) - z) < 1e-4));
});

test("no number of dodges reaches white, none of burns black, and the order of tones is kept", () => {
  for (const e of [1.5, -1.5]) {
    let [low, high] = [0.5, 9.5];
    for (let i = 0; i < 12; i++) {
      [low, high] = [exposedZone(low, e), exposedZone(high, e)];
      expect(low > 0 && high < 10 && low < high).toBe(true);
    }
  }
  fc.assert(fc.property(zone, zone, stops, (a, b, e) => a <= b === exposedZone(a, e) <= exposedZone(b, e) || Math.abs(a - b) < 1e-9));
});

test("on paper less light darkens all tones alike, bare paper too, and keeps their order; more light is as ever", () => {
  expect(exposedLuminance(1, -1, true)).toBe(0.5);
  expect(exposedLuminance(1, -1, false)).toBe(1);
  expect(exposedLuminance(0.4, -1, true)).toBeCloseTo(0.2, 12);
  fc.assert(
    fc.property(anyNumber(0, 1), stops, (y, e) => {
      const lit = exposedLuminance(y, e, true);
      return lit >= 0 && lit <= 1 && (e < 0 ? lit <= y : lit === exposedLuminance(y, e, false));
    }),
  );
});

test("held at a limit, stops stay in order, small ones as they are, and none passes it", () => {
  fc.assert(
    fc.property(stops, stops, anyNumber(0.1, 3), (a, b, limit) => {
      const [held, other] = [limitedStops(a, limit), limitedStops(b, limit)];
      const isSmall = Math.abs(a) <= limit / 2;
      return (
        (isSmall ? held === a : Math.abs(held) <= limit) && (a <= b ? held <= other : held >= other) && limitedStops(-a, limit) === -held
      );
    }),
  );
});

test("amounts by zone meet the middles of their zones and run smoothly between", () => {
  const amounts = [0, 0.25, -0.5, 1, 0, 0, 0, -1, 0, 0, 0.5];
  amounts.forEach((amount, n) => expect(zoneStops(amounts, n)).toBeCloseTo(amount, 12));
  expect(zoneStops(amounts, 2.5)).toBeCloseTo(0.25, 12);
  expect(zoneStops(Array<number>(11).fill(0.7), 3.21)).toBeCloseTo(0.7, 12);
});

test("protected ends get nothing at black and white, all from a zone and a half inside", () => {
  expect([endShare(0), endShare(10)]).toEqual([0, 0]);
  for (const inside of [1.5, 5, 8.5]) expect(endShare(inside)).toBeCloseTo(1, 12);
  expect(toneStops({ ...restingExposure(), flat: 1 }, 10)).toBe(0);
  expect(toneStops({ ...restingExposure(), flat: 1, endsHeld: false }, 10)).toBe(1);
});

describe("the order of tones", () => {
  test("is kept by what can be set, whatever is asked for", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(10), stops), { maxLength: 8 }), (asked) => {
        let settings = restingExposure();
        for (const [n, amount] of asked) settings = withZoneStops(settings, n, amount, 1);
        return keepsOrder(settings, 1);
      }),
      { seed: 6, numRuns: 60 },
    );
  });
  test("holds an amount where it would reverse, and leaves one that does not", () => {
    const gentle = withZoneStops(restingExposure(), 5, 0.3, 1);
    expect(gentle.zones[5]).toBe(0.3);
    const held = withZoneStops(restingExposure(), 5, 4, 1);
    expect(held.zones[5]).toBeGreaterThan(0.5);
    expect(held.zones[5]).toBeLessThan(4);
    expect(keepsOrder({ ...held, zones: held.zones.with(5, held.zones[5]! + 0.05) }, 1)).toBe(false);
  });
});

describe("maps", () => {
  const stroke = (burns: boolean, erase = false): ExposureStroke => ({
    radius: 0.2,
    hardness: 0.3,
    flow: 0.08,
    pressure: "none",
    erase,
    burns,
    ceiling: 0.5,
    path: packPath([0.2, 0.4, 0.6, 0.8].map((x) => ({ x, y: 0.3, pressure: 1 }))),
  });
  const mapOf = (strokes: ExposureStroke[], burns: boolean) => {
    const plane = new Float32Array(60 * 40);
    const own = strokesOf({ strokes }, burns);
    layStrokes(plane, wholeGrid({ width: 60, height: 40 }), own, exposureGoal);
    return plane;
  };
  test("strokes build up to their ceiling and never pass it; lights and darks do not touch each other", () => {
    const many = Array.from({ length: 30 }, () => stroke(false));
    const most = Math.max(...mapOf(many, false));
    expect(most).toBeGreaterThan(0.45);
    expect(most).toBeLessThanOrEqual(0.5);
    expect(mapOf([...many, stroke(true)], false)).toEqual(mapOf(many, false));
    expect(Math.max(...mapOf([stroke(true)], true))).toBeLessThan(0.3);
  });
  test("erasing brings both back towards nothing", () => {
    const both = [stroke(false), stroke(true)];
    const erased = [...both, ...Array.from({ length: 40 }, () => stroke(false, true))];
    for (const burns of [false, true])
      expect(Math.max(...mapOf(erased, burns))).toBeLessThan(0.05 * Math.max(...mapOf(both, burns)) + 0.01);
  });
});
