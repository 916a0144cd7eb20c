import { adaptToD65, P3_LUMINANCE, P3_TO_XYZ, XYZ_TO_P3 } from "../../colour/primaries";
import { apply3, diagonal3, invert3, multiply3, type Matrix3, type Vector3 } from "../../colour/matrix3";
import { MOST_COOLER, MOST_WARMER, TINT_LIMIT, type BalanceMove } from "./move";

/** The light a picture is taken to be balanced for, in mired. */
const DAYLIGHT_MIRED = 1e6 / 6504;

/** No daylight is cooler than this by so much that its chromaticities are told: cooling goes on from here by undoing warmth. */
const COOLEST = -90;

/**
 * What a balance does to linear Display P3: neutrals take on the tinge of light so much warmer than D65, or cooler, and of the filter;
 * their luminance stays.
 *
 * Units   mired and hundredths of density, within their limits. Source: adaptation after Bradford.
 */
export function balanceMatrix({ mired, tint }: Omit<BalanceMove, "kind">): Matrix3 {
  const cooled = mired < COOLEST ? multiply3(warmed(COOLEST), invert3(warmed(COOLEST - mired))) : warmed(mired);
  const matrix = multiply3(diagonal3([1, 10 ** (-tint / 100), 1]), multiply3(XYZ_TO_P3, multiply3(cooled, P3_TO_XYZ)));
  const white = luminance(apply3(matrix, [1, 1, 1]));
  return matrix.map((cell) => cell / white) as unknown as Matrix3;
}

/** Takes the white of daylight, in XYZ, to that of light so much warmer. */
function warmed(mired: number): Matrix3 {
  return multiply3(invert3(adaptToD65(lightOf(DAYLIGHT_MIRED + mired))), adaptToD65(lightOf(DAYLIGHT_MIRED)));
}

/** The warmest daylight, and where what is warmer is a glowing body's light and nothing else, in mired. */
const WARMEST_DAYLIGHT = 250;
const GLOWING_FROM = 400;

/**
 * XYZ of a light, Y = 1: daylight up to 4000 K, then what glows, drawn to daylight where the two meet.
 *
 * Source  CIE 15:2018, 4.1.2 (daylight); Kim et al., US 7,024,034 (2002): cubic approximation of the Planckian locus, 1667 to 4000 K.
 */
function lightOf(mired: number): Vector3 {
  const [x, y] = mired <= WARMEST_DAYLIGHT ? daylight(mired) : glowing(mired);
  return [x / y, 1, (1 - x - y) / y];
}

type Chromaticity = readonly [x: number, y: number];

function daylight(mired: number): Chromaticity {
  const u = mired / 1000;
  const x = u >= 1 / 7 ? 0.244063 + u * (0.09911 + u * (2.9678 - u * 4.607)) : 0.23704 + u * (0.24748 + u * (1.9018 - u * 2.0064));
  return [x, -0.275 + x * (2.87 - 3 * x)];
}

function glowing(mired: number): Chromaticity {
  const [x, y] = planckian(mired);
  const [meetX, meetY] = planckian(WARMEST_DAYLIGHT);
  const [dayX, dayY] = daylight(WARMEST_DAYLIGHT);
  const drawn = Math.max((GLOWING_FROM - mired) / (GLOWING_FROM - WARMEST_DAYLIGHT), 0);
  return [x + drawn * (dayX - meetX), y + drawn * (dayY - meetY)];
}

function planckian(mired: number): Chromaticity {
  const u = mired / 1000;
  const x = 0.17991 + u * (0.8776956 + u * (-0.2343589 - u * 0.2661239));
  const y =
    mired > 450
      ? -0.20219683 + x * (2.18555832 + x * (-1.3481102 - x * 1.1063814))
      : -0.16748867 + x * (2.09137015 + x * (-1.37418593 - x * 0.9549476));
  return [x, y];
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
    mired = within(mired - (at[0] * byTint[1]! - byTint[0]! * at[1]) / determinant, -MOST_COOLER, MOST_WARMER);
    tint = within(tint - (byMired[0]! * at[1] - at[0] * byMired[1]!) / determinant, -TINT_LIMIT, TINT_LIMIT);
  }
  return { mired, tint, isReached: Math.hypot(...tinge(mired, tint)) < 0.004 };
}

function within(value: number, least: number, most: number): number {
  return Math.min(Math.max(value, least), most);
}
