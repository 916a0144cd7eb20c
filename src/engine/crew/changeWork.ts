import type { Matrix3 } from "@/core/colour/matrix3";
import { CHANNELS } from "@/core/mix/weights";
import type { ColourBases } from "../bases";
import { changeColour, type ColourChange } from "../evaluateBand";
import type { SourcePlace } from "../stageTypes";
import { placeOf, putColour, type StripsOfColour } from "./bands";
import { colourWeightOf } from "../steps/colourSteps";
import type { Strip } from "./strips";
import type { Work } from "./works";

/** Changing colour before the mix. */
export interface Change {
  place: SourcePlace & { width: number };
  toP3: Matrix3;
  passes: readonly ColourChange[];
  /** Where each acts; absent where that is everywhere. */
  masks: readonly (Strip | undefined)[];
  around: ColourBases["around"];
  found: StripsOfColour;
  /** The tones as found, where surroundings are told by them. */
  tones: Strip | undefined;
  changed: StripsOfColour;
}

export const changeWork: Work<Change> = {
  weigh: ({ passes }) => passes.reduce((sum, { step }) => sum + colourWeightOf(step), 2),
  begin: (machine, { toP3 }) => machine.setGamut(toP3),
  perform(machine, { passes, masks, found, tones, changed, ...job }, band) {
    const { first, end } = band;
    putColour(machine, found, band);
    if (tones) machine.put("tone", tones.strip, first, end);
    changeColour(
      machine,
      passes,
      masks.map((mask) => mask?.strip),
      job,
      placeOf(job.place, band),
      first,
    );
    for (const name of CHANNELS) machine.take(name, changed[name].strip, first);
  },
};
