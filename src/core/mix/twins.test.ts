import { CHROMA_FADE } from "../kernels/constants";
import type { Planes } from "../kernels/planes";
import { describe, expect, test } from "vitest";
import { luminanceToTone } from "../colour/lstar";
import { apply3, invert3, type Vector3 } from "../colour/matrix3";
import { LMS_TO_LAB, linearP3ToOklab, P3_TO_LMS } from "../colour/oklab";
import { P3_LUMINANCE } from "../colour/primaries";
import { hueCurve, type HueKnot } from "./hueCurve";
import { canPart, findTwins, hueOfArea, partedKnots, twinPlane, TWIN_TONE } from "./twins";

const [W, H] = [64, 48];
const light = ([r, g, b]: Vector3) => P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b;

/** A colour of a hue that is just so light to the eye. */
function ofLight(y: number, chroma: number, degrees: number): Vector3 {
  let [low, high] = [0, 1];
  const at = (L: number): Vector3 => {
    const angle = (degrees * Math.PI) / 180;
    const [l, m, s] = apply3(invert3(LMS_TO_LAB), [L, chroma * Math.cos(angle), chroma * Math.sin(angle)]);
    return apply3(invert3(P3_TO_LMS), [l ** 3, m ** 3, s ** 3]);
  };
  for (let k = 0; k < 50; k++) [low, high] = light(at((low + high) / 2)) < y ? [(low + high) / 2, high] : [low, (low + high) / 2];
  return at(low);
}

function picture(at: (x: number, y: number) => Vector3): { colours: Planes; tones: Float32Array } {
  const colours = { red: new Float32Array(W * H), green: new Float32Array(W * H), blue: new Float32Array(W * H) };
  const tones = new Float32Array(W * H);
  for (let i = 0; i < W * H; i++) {
    const colour = at(i % W, Math.floor(i / W));
    [colours.red[i], colours.green[i], colours.blue[i]] = colour;
    tones[i] = luminanceToTone(light(colour));
  }
  return { colours, tones };
}

/** Leaves and earth as light as each other, a pale sky and something grey. */
const GREEN = ofLight(0.2, 0.1, 140);
const RED = ofLight(0.2, 0.1, 30);
const SKY = ofLight(0.6, 0.06, 250);
const scene = () => picture((x, y) => (y < 20 ? SKY : x < 24 ? GREEN : x < 50 ? RED : [0.05, 0.05, 0.05]));

/** Tones with hues pulled, as a mix makes them. */
function mixed({ red, green, blue }: Planes, knots: readonly HueKnot[]): Float32Array {
  const curve = hueCurve(knots);
  return red.map((r, i) => {
    const colour: Vector3 = [r, green[i]!, blue[i]!];
    const [, a, b] = linearP3ToOklab(colour);
    const u = Math.min(Math.max((Math.hypot(a, b) - CHROMA_FADE.from) / (CHROMA_FADE.to - CHROMA_FADE.from), 0), 1);
    const k = 2 ** (curve((Math.atan2(b, a) * 180) / Math.PI) * u * u * (3 - 2 * u));
    const y = light(colour);
    return luminanceToTone((k * y) / (1 + (k - 1) * y));
  });
}

describe("twins", () => {
  test("are the two colours that meet in tone, with how much of the picture they are", () => {
    const { colours, tones } = scene();
    const found = findTwins(colours, tones);
    expect(found.length).toBe(1);
    const [twins] = found;
    const hues = [twins!.one, twins!.other].map((area) => Math.round(hueOfArea(area)!)).toSorted((p, q) => p - q);
    expect(hues).toEqual([30, 140]);
    expect(twins!.one.share + twins!.other.share).toBeCloseTo((28 * 50) / (W * H), 2);
    expect(Math.abs(twins!.one.tone - twins!.other.tone)).toBeLessThan(TWIN_TONE);
  });

  test("are gone once they are parted, either way, and their places and no others are lit", () => {
    const { colours, tones } = scene();
    const [twins] = findTwins(colours, tones);
    for (const stops of [1.2, -1.2]) {
      const knots = partedKnots([], twins!, stops)!;
      const now = mixed(colours, knots);
      expect(findTwins(colours, now)).toEqual([]);
      const at = (x: number) => now[30 * W + x]!;
      const isGreenFirst = hueOfArea(twins!.one)! > 90;
      expect(Math.sign(at(5) - at(30))).toBe(Math.sign(stops) * (isGreenFirst ? 1 : -1));
      // Neutrals, and the sky, stay.
      expect(at(60)).toBeCloseTo(tones[30 * W + 60]!, 6);
      expect(Math.abs(now[5 * W + 5]! - tones[5 * W + 5]!)).toBeLessThan(0.02);
    }
    const plane = twinPlane(colours, twins!.one, twins!.other);
    const lit = (x: number, y: number) => plane[y * W + x]!;
    expect(Math.abs(lit(5, 30))).toBeGreaterThan(0.9);
    expect(Math.sign(lit(5, 30))).toBe(-Math.sign(lit(30, 30)));
    for (const [x, y] of [
      [5, 5],
      [60, 40],
    ] as const)
      expect(Math.abs(lit(x, y))).toBeLessThan(0.4);
  });

  test("none in a picture without colours, nor where tones tell the colours apart; one of a hue with grey parts by its hue alone", () => {
    const grey = picture((x) => [x / W, x / W, x / W]);
    expect(findTwins(grey.colours, grey.tones)).toEqual([]);
    const told = picture((x) => (x < 32 ? ofLight(0.1, 0.1, 140) : ofLight(0.4, 0.1, 30)));
    expect(findTwins(told.colours, told.tones)).toEqual([]);
    const half = picture((x) => (x < 32 ? ofLight(0.2, 0.1, 140) : [0.2, 0.2, 0.2]));
    const [twins] = findTwins(half.colours, half.tones);
    expect(canPart(twins!)).toBe(true);
    const knots = partedKnots([], twins!, 1)!;
    expect(Math.abs(hueCurve(knots)(140))).toBeCloseTo(1, 6);
  });

  test("of one hue cannot be parted by hues", () => {
    const [one, other] = [
      { lightness: 0.5, a: 0.1, b: 0.02, tone: 0.5, share: 0.1 },
      { lightness: 0.5, a: 0.03, b: 0.005, tone: 0.5, share: 0.1 },
    ];
    expect(canPart({ one, other })).toBe(false);
    expect(canPart({ one: { ...one, a: 0.005, b: 0 }, other: { ...other, a: -0.004, b: 0 } })).toBe(false);
  });
});
