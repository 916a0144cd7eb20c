import { adaptToD65, P3_LUMINANCE, P3_TO_XYZ, XYZ_TO_P3 } from "../../colour/primaries";
import { apply3, diagonal3, invert3, multiply3, type Matrix3, type Vector3 } from "../../colour/matrix3";
import { MIRED_LIMIT, TINT_LIMIT, type BalanceMove } from "./move";

/** The light a picture is taken to be balanced for, in mired. */
const DAYLIGHT_MIRED = 1e6 / 6504;

/**
 * What a balance does to linear Display P3: neutrals take on the tinge of daylight so much warmer than D65, or cooler, and of the filter; their luminance stays.
 *
 * Units   mired and hundredths of density, within their limits. Source: CIE 15:2018, 4.1.2 (daylight's chromaticities); adaptation after Bradford.
 */
export function balanceMatrix({ mired, tint }: Omit<BalanceMove, "kind">): Matrix3 {
  const [from, to] = [daylight(DAYLIGHT_MIRED), daylight(DAYLIGHT_MIRED + mired)];
  const adapted = multiply3(invert3(adaptToD65(to)), adaptToD65(from));
  const green = 10 ** (-tint / 100);
  const matrix = multiply3(diagonal3([1, green, 1]), multiply3(XYZ_TO_P3, multiply3(adapted, P3_TO_XYZ)));
  const white = luminance(apply3(matrix, [1, 1, 1]));
  return matrix.map((cell) => cell / white) as unknown as Matrix3;
}

/** XYZ of daylight, Y = 1. */
function daylight(mired: number): Vector3 {
  const kelvin = 1e6 / mired;
  const u = 1000 / kelvin;
  const x = kelvin <= 7000 ? 0.244063 + u * (0.09911 + u * (2.9678 - u * 4.607)) : 0.23704 + u * (0.24748 + u * (1.9018 - u * 2.0064));
  const y = -0.275 + x * (2.87 - 3 * x);
  return [x / y, 1, (1 - x - y) / y];
}

function luminance([r, g, b]: Vector3): number {
  return P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b;
}

/** Too dark or too light to tell a colour by. Units: linear P3. */
const LEAST_LIGHT = 0.002;
const MOST_LIGHT = 0.995;

/** The balance that makes a colour neutral, as near as its limits let it; or why none can be told. */
export function balanceFor(colour: Vector3): { mired: number; tint: number; isReached: boolean } | { refused: "dark" | "burnt out" } {
  if (Math.max(...colour) >= MOST_LIGHT) return { refused: "burnt out" };
  if (luminance(colour) < LEAST_LIGHT || Math.min(...colour) <= 0) return { refused: "dark" };
  const tinge = (mired: number, tint: number) => {
    const [r, g, b] = apply3(balanceMatrix({ mired, tint }), colour).map((v) => Math.log(Math.max(v, 1e-9))) as [number, number, number];
    return [r - b, g - (r + b) / 2] as const;
  };
  let [mired, tint] = [0, 0];
  const step = 0.01;
  for (let round = 0; round < 30; round++) {
    const at = tinge(mired, tint);
    const [byMired, byTint] = [tinge(mired + step, tint), tinge(mired, tint + step)].map((next) =>
      next.map((v, i) => (v - at[i]!) / step),
    ) as [number[], number[]];
    const determinant = byMired[0]! * byTint[1]! - byTint[0]! * byMired[1]!;
    mired = within(mired - (at[0] * byTint[1]! - byTint[0]! * at[1]) / determinant, MIRED_LIMIT);
    tint = within(tint - (byMired[0]! * at[1] - at[0] * byMired[1]!) / determinant, TINT_LIMIT);
  }
  return { mired, tint, isReached: Math.hypot(...tinge(mired, tint)) < 0.004 };
}

function within(value: number, limit: number): number {
  return Math.min(Math.max(value, -limit), limit);
}
