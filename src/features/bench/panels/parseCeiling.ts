import { parseStops } from "@/core/zones/zone";

/** Reads a ceiling in stops: a size, typed with the sign it is shown with or without. Undefined where it is none. */
export function parseCeiling(text: string): number | undefined {
  const stops = parseStops(text);
  return stops === undefined ? undefined : Math.abs(stops);
}
