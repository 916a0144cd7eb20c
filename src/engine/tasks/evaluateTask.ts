import type { SourcePlace } from "../machine/surroundingsBand";
import type { Matrix3 } from "@/core/colour/matrix3";
import type { CompiledMix } from "@/core/mix/mixLook";
import { evaluateBand, type BandRun, type BandSupply } from "../evaluate/evaluateBand";
import type { BandMachine } from "../machine/bandMachine";
import type { Hues, OwnChroma } from "../machine/chromaBand";
import { showBand, type Looks } from "../machine/pixels";
import { weightOf } from "../steps/steps";
import { ownOf, placeOf, putColour, putTones, takeTones, type TaskPlanes, type TaskColour, type TaskTones } from "./bands";
import type { TaskPlane } from "./taskPlanes";
import type { Band, Task } from "./tasks";

/** Steps of a plan one after the other, from what is mixed or from tones, keeping tones on the way; and how they are shown in the end. */
export interface Evaluation {
  place: SourcePlace & { width: number };
  toP3: Matrix3;
  mix: CompiledMix;
  mixesLight: boolean;
  /** Whether colour is laid on tones at all. */
  laysColour: boolean;
  parts: readonly EvaluatedPart[];
  shown: Shown | undefined;
}

/** One of the tones that stand for what is inside each pixel, or all there is of it. */
export interface EvaluatedPart {
  /** Tones to begin from; without them it begins with the mix, which is kept where it is wanted. */
  from: TaskTones | undefined;
  mixed: TaskTones | undefined;
  /** What is mixed, as far as it is asked for: its channels, its hues, its own colour. */
  colour: TaskColour | undefined;
  hues: TaskPlanes<Hues> | undefined;
  own: TaskPlanes<OwnChroma> | undefined;
  runs: readonly TaskRun[];
}

/** A run with where it acts and what it needs of the whole picture. */
export interface TaskRun extends BandRun {
  mask: TaskPlane | undefined;
  added: TaskPlane | undefined;
  laid: TaskPlane | undefined;
  /** The tones after it, where they are kept. */
  kept: TaskTones | undefined;
}

/** How finished tones are shown: those of the one part, or the mean light of the two for each pixel, by the share of the lighter. */
export interface Shown {
  looks: Looks;
  isColoured: boolean;
  share: TaskPlane | undefined;
  /** Whether both are light already, which the look's table is over. */
  isLight: boolean;
  rgba: TaskPlane<Uint8Array>;
}

export const evaluateTask: Task<Evaluation> = {
  weigh: ({ parts, shown }) =>
    parts.reduce((sum, { from, runs }) => sum + (from ? 0 : 2) + runs.reduce((all, run) => all + weightOfRun(run), 0), 0) +
    (shown ? (shown.share ? 2 : 1) * (shown.isColoured ? 4 : 1) : 0),
  begin(machine, { toP3, mix, shown }) {
    machine.setGamut(toP3);
    machine.setMix(mix);
    if (!shown) return;
    machine.output.setTable(shown.looks.table);
    if (shown.looks.coloured) machine.output.setSpace(shown.looks.coloured, 8);
  },
  perform(machine, job, band) {
    job.parts.forEach((part, i) => {
      if (i > 0) machine.setDarker(job.laysColour);
      evaluatePart(machine, job, part, band);
    });
    if (job.shown) show(machine, job, job.shown, band);
  },
};

const weightOfRun = ({ steps }: TaskRun) => steps.reduce((sum, step) => sum + weightOf(step), 0);

function evaluatePart(machine: BandMachine, { place, mix, mixesLight, laysColour }: Evaluation, part: EvaluatedPart, band: Band): void {
  const { first, end } = band;
  const { from } = part;
  const supply: BandSupply<TaskRun> = {
    place: placeOf(place, band),
    putTones: from && (() => putTones(machine, from, band, laysColour)),
    putColour(withHues) {
      putColour(machine, part.colour!, band);
      if (withHues) for (const name of ["hue", "fade"] as const) machine.put(name, part.hues![name].plane, first, end);
    },
    putOwnColour: () => machine.putOwnChroma(ownOf(part.own!), first, end),
    planesOf: ({ mask, added, laid }) => ({ mask: mask?.plane, added: added?.plane, laid: laid?.plane, first }),
    onTones(run) {
      const kept = run ? run.kept : part.mixed;
      if (kept) takeTones(machine, kept, band);
    },
  };
  evaluateBand(machine, { mix, mixesLight, laysColour, runs: part.runs }, supply);
}

function show(machine: BandMachine, { place }: Evaluation, { looks, isColoured, isLight, share, rgba }: Shown, band: Band): void {
  if (share && isLight) machine.meetDarkerLight(share.plane, band.first);
  else if (share) machine.meetDarker(share.plane, band.first, isColoured);
  showBand(machine, rgba.plane, { ...band, width: place.width }, looks, isColoured);
}
