import type { Written } from "../text/written";
import { CoreError } from "../errors";
import type { Stops, Zone } from "../units";

/** Zones 0 (deepest black) to X (paper white). */
export const ZONE_COUNT = 11;
export const LAST_ZONE = ZONE_COUNT - 1;

const NUMERALS = ["0", "I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X"] as const;

/** Parts of a zone that have a sign of their own. */
const FRACTIONS = [
  { part: 1 / 4, sign: "¼" },
  { part: 1 / 3, sign: "⅓" },
  { part: 1 / 2, sign: "½" },
  { part: 2 / 3, sign: "⅔" },
  { part: 3 / 4, sign: "¾" },
] as const;

/** Half of the last printed digit: closer than this a zone is written as a fraction. */
const FRACTION_TOLERANCE = 0.005;

/** The Roman numeral of a whole zone 0–10. Errors: CoreError `bad_zone`. */
export function zoneNumeral(zone: Zone): string {
  const numeral = NUMERALS[zone];
  if (numeral === undefined) throw new CoreError("bad_zone", `a zone is a whole number 0–10, got ${zone}`, { zone });
  return numeral;
}

/** The zone that owns a place on the scale: zone n owns [n − ½, n + ½), 0 and X are half as wide. */
export function owningZone(zone: Zone): number {
  return Math.min(Math.max(Math.floor(zone + 0.5), 0), LAST_ZONE);
}

/** A place on the zone scale as a photographer writes it: V, VII½, IV⅓, else VI.42. Units: 0–10. */
export function formatZone(zone: Zone): string {
  const z = Math.min(Math.max(zone, 0), LAST_ZONE);
  const whole = Math.floor(z + FRACTION_TOLERANCE);
  const part = z - whole;
  if (part < FRACTION_TOLERANCE) return zoneNumeral(whole);
  const fraction = FRACTIONS.find((f) => Math.abs(part - f.part) < FRACTION_TOLERANCE);
  if (fraction) return zoneNumeral(whole) + fraction.sign;
  return `${zoneNumeral(whole)}.${part.toFixed(2).slice(2)}`;
}

/** To the nearest third, as tones and stops are read: finer than the eye, coarser than noise. */
export function toThird(value: number): number {
  return Math.round(value * 3) / 3;
}

/** Stops as a photographer writes them: +⅓, −1½, 0, +0.42. */
export function formatStops(stops: Stops): string {
  if (!Number.isFinite(stops)) return stops < 0 ? "−∞" : "+∞";
  if (Math.abs(stops) < FRACTION_TOLERANCE) return "0";
  const size = Math.abs(stops);
  const whole = Math.floor(size + FRACTION_TOLERANCE);
  const part = size - whole;
  const sign = stops < 0 ? "−" : "+";
  if (part < FRACTION_TOLERANCE) return `${sign}${whole}`;
  const fraction = FRACTIONS.find((f) => Math.abs(part - f.part) < FRACTION_TOLERANCE);
  return fraction ? `${sign}${whole || ""}${fraction.sign}` : `${sign}${size.toFixed(2)}`;
}

/**
 * Reads what a person types for a zone: "VII", "vii½", "VII 1/2", "7.5", "7,5", "7 1/3".
 * Returns undefined where it is no place on the scale.
 */
export function parseZone(text: string): Zone | undefined {
  const match = /^\s*([ivx]+|\d+(?:[.,]\d+)?|0)?\s*(?:\.(\d+)|([¼⅓½⅔¾])|([123])\s*\/\s*([234]))?\s*$/i.exec(text);
  if (!match || match[0].trim() === "") return undefined;
  const [, head = "0", decimals, sign, over, under] = match;
  const roman = NUMERALS.findIndex((numeral) => numeral === head.toUpperCase());
  const whole = roman >= 0 ? roman : Number(head.replace(",", "."));
  const zone = whole + (decimals === undefined ? fractionOf(sign, over, under) : Number(`0.${decimals}`));
  return Number.isFinite(zone) && zone >= 0 && zone <= LAST_ZONE ? zone : undefined;
}

/**
 * Reads what a person types for stops: "½", "+1⅓", "−2/3", "1 1/3", "0,5", "-0.5 stops". Returns undefined where it is no number of them.
 */
export function parseStops(text: string): number | undefined {
  const match = /^\s*([+−-])?\s*(\d+(?:[.,]\d+)?(?!\d*\s*\/))?\s*(?:([¼⅓½⅔¾])|(\d+)\s*\/\s*([1-9]\d*))?\s*(?:stops?)?\s*$/i.exec(text);
  if (!match || !/[\d¼⅓½⅔¾]/.test(text)) return undefined;
  const [, minus, whole = "0", sign, over, under] = match;
  const size = Number(whole.replace(",", ".")) + fractionOf(sign, over, under);
  return minus && minus !== "+" ? -size : size;
}

function fractionOf(sign: string | undefined, over: string | undefined, under: string | undefined): number {
  if (sign !== undefined) return FRACTIONS.find((f) => f.sign === sign)!.part;
  return over === undefined ? 0 : Number(over) / Number(under);
}

/** Zones and stops as people write them. */
export const ZONES: Written = { format: formatZone, parse: parseZone };
export const STOPS: Written = { format: formatStops, parse: parseStops };
