import { PERCENT, finePercent } from "../../text/written";
import { STOPS, ZONE_COUNT } from "../../zones/zone";
import { restOf, type Fields } from "../fields";
import { MOST_MAP_SOFTEN, MOST_STOPS, type ExposureSettings } from "./exposure";
import type { ExposureMove } from "./move";

const HUNDREDTHS = finePercent(2);
const times = (about: string, label: string) => ({ about, label, least: 0, most: 2, rest: 1, step: 0.01, written: PERCENT }) as const;

export const exposureFields: Fields<ExposureMove> = {
  dodge: times("Times what is dodged", "Dodging"),
  burn: times("Times what is burned", "Burning"),
  flat: {
    about: "Stops over all of the region",
    label: "Over all",
    least: -MOST_STOPS,
    most: MOST_STOPS,
    rest: 0,
    step: 1 / 12,
    written: STOPS,
  },
  soften: {
    about: "Standard deviation of a blur over all that is painted, in long edges",
    label: "Soften",
    words: "Painted map softened",
    least: 0,
    most: MOST_MAP_SOFTEN,
    rest: 0,
    step: 0.0005,
    written: { ...HUNDREDTHS, format: (soften) => (soften === 0 ? "off" : HUNDREDTHS.format(soften)) },
  },
};

/** Nothing laid on yet; the ends are protected. */
export function restingExposure(): ExposureSettings {
  return { ...restOf(exposureFields), strokes: [], limit: null, zones: Array<number>(ZONE_COUNT).fill(0), endsHeld: true };
}
