import { pairTable } from "../../kernels/pairTable";
import type { SeparateStep } from "../../steps/colourStep";
import { LEAST_APART, type HueRange, type Parting, type SeparationMove, type Tinge } from "./move";

const HUE_KNOTS = 1440;

/** How far a hue is in a range: 1 in its middle, smoothly 0 from its width on. */
export function inRange({ hueDeg, widthDeg }: Pick<HueRange, "hueDeg" | "widthDeg">, hue: number): number {
  const away = Math.abs(((((hue - hueDeg) % 360) + 540) % 360) - 180);
  return away >= widthDeg ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * away) / widthDeg);
}

/** Why colours cannot be parted; undefined where they can. */
export function unfitParting({ stays, moves, held }: Omit<Parting, "amount">): "same" | "in line" | undefined {
  if (apart(stays, moves) < LEAST_APART) return "same";
  if (!held) return undefined;
  if (apart(stays, held) < LEAST_APART) return undefined;
  // The nearer the held one lies to the line through both, the more all others would be torn.
  const cross = (moves.a - stays.a) * (held.b - stays.b) - (moves.b - stays.b) * (held.a - stays.a);
  return Math.abs(cross) / (apart(stays, moves) * apart(stays, held)) < LEAST_SINE ? "in line" : undefined;
}
/** Of the angle between what moves and what is held, seen from what stays. */
const LEAST_SINE = 0.2;

function apart(p: Tinge, q: Tinge): number {
  return Math.hypot(p.a - q.a, p.b - q.b);
}

/**
 * What a parting adds to a and b: (fromA · a + fromB · b + offset) times (alongA, alongB). It is linear in the plane of a and b, leaves
 * what stays and what is held where they are, and moves what moves away from what stays.
 */
export function partingLine(parting: Parting): SeparateStep["parting"] {
  const { stays, moves, held, amount } = parting;
  if (unfitParting(parting)) return NO_PARTING;
  const [da, db] = [moves.a - stays.a, moves.b - stays.b];
  // Across the line through what stays and what is held; without one, along the line to what moves.
  const isHeld = held && apart(stays, held) >= LEAST_APART;
  const [u, v] = isHeld ? [held.b - stays.b, stays.a - held.a] : [da, db];
  const scale = amount / (u * da + v * db);
  return { fromA: scale * u, fromB: scale * v, offset: -scale * (u * stays.a + v * stays.b), alongA: da, alongB: db };
}
const NO_PARTING: SeparateStep["parting"] = { fromA: 0, fromB: 0, offset: 0, alongA: 0, alongB: 0 };

/** A separation as tables over hue and one line. */
export function separateStep({ saturation, ranges, parting }: SeparationMove): SeparateStep {
  const gain = (hue: number) => ranges.reduce((product, range) => product * (1 + (range.chroma - 1) * inRange(range, hue)), saturation);
  const turn = (hue: number) => (Math.PI / 180) * ranges.reduce((sum, range) => sum + range.turnDeg * inRange(range, hue), 0);
  // Where no hue is told from another there is no need to look for hues.
  const knots = ranges.length > 0 ? HUE_KNOTS : 1;
  return {
    kind: "separate",
    along: pairTable(knots, (turns) => gain(360 * turns) * Math.cos(turn(360 * turns))),
    across: pairTable(knots, (turns) => gain(360 * turns) * Math.sin(turn(360 * turns))),
    parting: parting ? partingLine(parting) : NO_PARTING,
  };
}
