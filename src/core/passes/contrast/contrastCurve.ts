import type { Written } from "../../text/written";
import { LAST_ZONE } from "../../zones/zone";
import type { Zone } from "../../units";

/** Steeper or flatter around a zone, the ends kept; and the tones that become true black and true white. */
export interface ContrastSettings {
  /** The zone that stays where it is. Units: zones, inside 0–10. */
  around: Zone;
  /** Paper grade: −1 stands for 00, then 0 to 5, any real between. 2 leaves all as it is. */
  grade: number;
  /** Tones up to here become black, from `white` on paper white. Units: zones. */
  black: Zone;
  white: Zone;
}

export const SOFTEST_GRADE = -1;
export const HARDEST_GRADE = 5;
export const NORMAL_GRADE = 2;
/** The least distance of black and white points, in zones. */
export const LEAST_RANGE = 0.5;

/**
 * The range of exposures (ISO R, 100 × log10) a paper of each grade takes from black to white, from
 * 00 to 5: the middles of the ranges the trade gives. The steepness of a grade is that of grade 2 over it.
 * docs/decisions/0006-contrast.md.
 */
const GRADE_RANGES = [180, 160, 130, 110, 90, 70, 50] as const;

/** How many times steeper than grade 2 a grade is at its pivot; 1 for grade 2. */
export function gradeSteepness(grade: number): number {
  const at = Math.min(Math.max(grade - SOFTEST_GRADE, 0), GRADE_RANGES.length - 1);
  const i = Math.min(Math.floor(at), GRADE_RANGES.length - 2);
  const range = GRADE_RANGES[i]! + (GRADE_RANGES[i + 1]! - GRADE_RANGES[i]!) * (at - i);
  return GRADE_RANGES[NORMAL_GRADE - SOFTEST_GRADE]! / range;
}

/** A grade as the trade writes it: 00, 0, 1 … 5, 2½. */
export function formatGrade(grade: number): string {
  if (grade <= SOFTEST_GRADE) return "00";
  const whole = Math.floor(grade + 1e-9);
  const part = grade - whole;
  const sign = part < 0.05 ? "" : Math.abs(part - 0.5) < 0.05 ? "½" : part.toFixed(1).slice(1);
  return whole < 0 ? `00${sign}` : `${whole}${sign}`;
}

/** Reads a grade as printers write it: 00 to 5, halves too. */
function parseGrade(text: string): number | undefined {
  const trimmed = text.trim().replace(",", ".").replace("½", ".5");
  if (trimmed === "00") return SOFTEST_GRADE;
  const grade = Number(trimmed);
  return trimmed === "" || Number.isNaN(grade) ? undefined : grade;
}

/** Grades as printers write them. */
export const GRADES: Written = { format: formatGrade, parse: parseGrade };

/**
 * The contrast curve over the zone scale: two hyperbolas that meet at the pivot with the grade's
 * steepness k and leave the ends with 1∕k, so nothing is torn there. k and 1∕k undo each other.
 *
 * Units   zones 0–10 in and out. Monotone; black and white points are level beyond.
 */
export function contrastCurve({ around, grade, black, white }: ContrastSettings): (zone: Zone) => Zone {
  const k = gradeSteepness(grade);
  const pivot = LAST_ZONE * ((Math.min(Math.max(around, black), white) - black) / (white - black));
  return (zone) => {
    const stretched = LAST_ZONE * Math.min(Math.max((zone - black) / (white - black), 0), 1);
    if (stretched <= pivot) return pivot === 0 ? 0 : pivot * bend(stretched / pivot, k);
    return LAST_ZONE - (LAST_ZONE - pivot) * bend((LAST_ZONE - stretched) / (LAST_ZONE - pivot), k);
  };
}

/** 0 at 0, 1 at 1, slope k at 1 and 1∕k at 0. */
function bend(u: number, k: number): number {
  return u / (1 + (k - 1) * (1 - u));
}
