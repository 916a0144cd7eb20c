import type { Planes } from "@/core/kernels/planes";
import type { Looks } from "../machine/pixels";
import type { Part } from "../machine/grainMachine";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { StepBase } from "../evaluate/bases";
import type { Checkpoints } from "./checkpoints";
import { bandStep } from "@/core/steps/step";
import { inputs, putTones, type TaskTones } from "../tasks/bands";
import type { Evaluation, EvaluatedPart, TaskRun } from "../tasks/evaluateTask";
import { output, input, type TaskPlane } from "../tasks/taskPlanes";
import type { GrownPlane, Rows } from "../machine/grownPlane";
import { readsOf } from "../steps/steps";
import { colouredFrom, type Run } from "../evaluate/runs";
import type { Source } from "../source/source";

/** A run ready for the bands: its mask laid out, what it gathered. */
export type LaidRun = Run & {
  /** What its step asked for. */
  laid: GrownPlane | undefined;
  /** A mask for each part of the pixels. */
  masks: Float32Array[] | undefined;
  added: Float32Array | undefined;
  base: StepBase | undefined;
};

/** Into which pixels finished tones are shown, 4 bytes each, and how. */
export interface ShownOnTheWay {
  rgba: Uint8Array;
  looks: Looks;
  isColoured: boolean;
  /** Whether what runs leave is light, whose mean is shown; whether that is what the mix leaves. */
  isLight?: boolean;
  mixesLight?: boolean;
}

/** Sweeps over the bands of a source, from checkpoint to checkpoint of the tones after the steps of a plan. */
export class BandSweeps {
  /** What is mixed, part by part. */
  #mixed: ReadonlyMap<Part, Planes> = new Map();
  #mix: Evaluation["mix"] | undefined;
  /** The steps of the plan, and those after which there may be colour. */
  #last = 0;
  #colouredFrom = Infinity;

  constructor(
    readonly source: Source,
    readonly checkpoints: Checkpoints,
  ) {}

  /** Takes up a plan, with what it mixes. */
  follow(plan: CompiledPlan, mixed: ReadonlyMap<Part, Planes>): void {
    this.#mixed = mixed;
    this.#mix = { weights: plan.weights, hueTable: plan.hueTable };
    this.#last = plan.passes.length;
    this.#colouredFrom = colouredFrom(plan);
  }

  /** Whether colour may lie on the tones after a step. */
  isColoured(step: number): boolean {
    return step >= this.#colouredFrom;
  }

  /** Whether the plan lays colour on tones at all. */
  get #laysColour(): boolean {
    return this.#colouredFrom < Infinity;
  }

  /**
   * Runs over all bands, from the source colours or from the tones after a step, filling the checkpoints passed on the way. Where only
   * some rows changed, the other bands stay as they are.
   */
  over(runs: readonly LaidRun[], from: number | undefined, fresh: ReadonlySet<number>, shown?: ShownOnTheWay, changed?: Rows): void {
    const { source } = this;
    const bands = source.bands;
    const isChanged = ({ y, rows }: { y: number; rows: number }) => !changed || (changed.to > y && changed.from < y + rows);
    const sweep = this.#sweepOf(runs, from, fresh, shown);
    source.perform("evaluate", sweep, bands.filter(isChanged));
    const same = shown ? bands.filter((band) => !isChanged(band)) : [];
    if (same.length > 0) source.perform("evaluate", this.#sweepOf([], this.#last, NOTHING, shown), same);
  }

  #sweepOf(runs: readonly LaidRun[], from: number | undefined, fresh: ReadonlySet<number>, shown: ShownOnTheWay | undefined): Evaluation {
    const { source } = this;
    const made = new Set([...(from === undefined ? [0] : []), ...runs.map(({ to }) => to)].filter((step) => fresh.has(step)));
    const tones = this.#tonesOf(made);
    const reads = new Set(runs.flatMap(({ steps }) => steps.map(readsOf)));
    const needsHues = reads.has("mixed with hues") || (from === undefined && this.#mix!.hueTable);
    const needsColour = from === undefined || reads.has("mixed") || reads.has("mixed with hues");
    const parts = source.parts.map((part, i): EvaluatedPart => {
      const colour = this.#mixed.get(part)!;
      return {
        from: from === undefined ? undefined : tones(from, part),
        mixed: from === undefined && made.has(0) ? tones(0, part) : undefined,
        colour: needsColour ? inputs(colour) : undefined,
        hues: needsHues ? inputs(source.hues(colour)) : undefined,
        own: reads.has("own") ? inputs(source.ownChroma(colour)) : undefined,
        runs: runs.map((run) => ({ ...taskRun(run, i), kept: made.has(run.to) ? tones(run.to, part) : undefined })),
      };
    });
    return {
      place: { ...source.place, width: source.size.width },
      toP3: source.toP3,
      mix: this.#mix!,
      mixesLight: shown?.mixesLight ?? false,
      laysColour: this.#laysColour,
      parts,
      shown: shown && {
        looks: shown.looks,
        isColoured: shown.isColoured,
        isLight: shown.isLight ?? false,
        share: source.grain && input(source.grain.share),
        rgba: { plane: shown.rgba, each: 4, isOutput: true },
      },
    };
  }

  /** The tones after steps, part by part, as planes, some of which are made: the same planes each time. */
  #tonesOf(made: ReadonlySet<number>): (step: number, part: Part) => TaskTones {
    const known = new Map<string, TaskTones>();
    return (step, part) => {
      const key = `${step} ${part}`;
      const { tone, chroma } = this.checkpoints.at(step);
      const of = (plane: Float32Array): TaskPlane => (made.has(step) ? output : input)(this.source.partOf(plane, part));
      const planes = known.get(key) ?? { tone: of(tone), chroma: chroma && { a: of(chroma.a), b: of(chroma.b) } };
      known.set(key, planes);
      return planes;
    };
  }

  /** Makes planes of the mean light of the two tones of each pixel after a step, and of the colour on them where they are wanted. */
  takeMean(step: number, out: { tone: Float32Array } | { a: Float32Array; b: Float32Array }): void {
    const { machine, bands, grain } = this.source;
    const tones = this.#tonesOf(NOTHING);
    for (const band of bands) {
      putTones(machine, tones(step, "darker"), band, this.#laysColour);
      machine.setDarker("a" in out);
      putTones(machine, tones(step, "lighter"), band, this.#laysColour);
      machine.meetDarker(grain!.share, band.first, "a" in out);
      for (const [name, plane] of Object.entries(out)) machine.take(name as "tone" | "a" | "b", plane, band.first);
    }
  }
}

const NOTHING: ReadonlySet<number> = new Set();

/** What a band needs of a run: not where it was drawn, which has become planes. */
function taskRun({ steps, free, masks, added, base, laid }: LaidRun, part: number): Omit<TaskRun, "kept"> {
  const read = (plane: Float32Array | undefined) => plane && input(plane);
  return {
    steps: steps.map(bandStep),
    free: free && bandStep(free),
    base,
    mask: read(masks?.[part]),
    added: read(added),
    laid: read(laid?.plane),
  };
}
