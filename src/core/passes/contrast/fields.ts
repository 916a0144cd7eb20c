import { LAST_ZONE, ZONES } from "../../zones/zone";
import type { Fields } from "../fields";
import { GRADES, HARDEST_GRADE, NORMAL_GRADE, SOFTEST_GRADE } from "./contrastCurve";
import type { ContrastMove } from "./move";

const zone = (about: string, label: string, rest: number) =>
  ({ about, label, least: 0, most: LAST_ZONE, rest, step: 0.05, written: ZONES }) as const;

export const contrastFields: Fields<ContrastMove> = {
  around: { ...zone("The zone that stays", "Around", 5), words: "Contrast around" },
  grade: {
    about: "Paper grade: -1 for 00, then 0 to 5; 2 leaves all as it is",
    label: "Finer",
    words: "Grade",
    least: SOFTEST_GRADE,
    most: HARDEST_GRADE,
    rest: NORMAL_GRADE,
    step: 0.1,
    written: GRADES,
  },
  black: zone("Tones up to here become black", "Black up to", 0),
  white: zone("Tones from here on become paper white", "White from", LAST_ZONE),
};
