import type { SourcePlace } from "../machine/surroundingsBand";
import type { Matrix3 } from "@/core/colour/matrix3";
import { CHANNELS } from "@/core/mix/weights";
import type { ColourBases } from "../evaluate/bases";
import { changeColour, type ColourChange } from "../evaluate/evaluateBand";
import { placeOf, putColour, type TaskColour } from "./bands";
import { colourWeightOf } from "../steps/colourSteps";
import type { TaskPlane } from "./taskPlanes";
import type { Task } from "./tasks";

/** Changing colour before the mix. */
export interface ColourJob {
  place: SourcePlace & { width: number };
  toP3: Matrix3;
  passes: readonly ColourChange[];
  /** Where each acts; absent where that is everywhere. */
  masks: readonly (TaskPlane | undefined)[];
  around: ColourBases["around"];
  found: TaskColour;
  /** The tones as found, where surroundings are told by them. */
  tones: TaskPlane | undefined;
  changed: TaskColour;
}

export const colourTask: Task<ColourJob> = {
  weigh: ({ passes }) => passes.reduce((sum, { step }) => sum + colourWeightOf(step), 2),
  begin: (machine, { toP3 }) => machine.setGamut(toP3),
  perform(machine, { passes, masks, found, tones, changed, ...job }, band) {
    const { first, end } = band;
    putColour(machine, found, band);
    if (tones) machine.put("tone", tones.plane, first, end);
    changeColour(
      machine,
      passes,
      masks.map((mask) => mask?.plane),
      job,
      placeOf(job.place, band),
      first,
    );
    for (const name of CHANNELS) machine.take(name, changed[name].plane, first);
  },
};
