import { z } from "zod";
import type { NumberField } from "@/core/passes/fields";
import { MOST_STOPS } from "@/core/passes/exposure/exposure";
import { LAST_ZONE } from "@/core/zones/zone";

/** What a schema has for a move's plain numbers, within their bounds. */
export function numbersOf<F extends Readonly<Record<string, NumberField>>>(fields: F): { [N in keyof F]: z.ZodNumber } {
  const numberOf = ({ least, most, about }: NumberField) => {
    const number = z.number().min(least).max(most);
    return about ? number.describe(about) : number;
  };
  return Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, numberOf(field)])) as { [N in keyof F]: z.ZodNumber };
}

/** Limits reckoned in another way may differ by so much. */
export const ROUNDING = 1e-9;

export const Zone = z.number().min(0).max(LAST_ZONE).describe("A place on the zone scale, 0 (black) to 10 (paper white)");
export const Strength = z.number().min(0).max(2);
export const Stops = z.number().min(-MOST_STOPS).max(MOST_STOPS);
