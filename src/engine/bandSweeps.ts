import type { Planes } from "@/core/kernels/reference";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import { applyRun, type StepBase } from "./applyRun";
import type { Checkpoints } from "./checkpoints";
import { CHROMA_PLANES } from "./chromaBand";
import type { Part } from "./decoded";
import type { GrownPlane, Rows } from "./grownPlane";
import type { TakeBand } from "./pixels";
import { colouredFrom, returnsColour, type Run } from "./runs";
import type { Source } from "./source";

/** A run ready for the bands: its mask laid out, what it gathered. */
export type LaidRun = Run & {
  painted: GrownPlane | undefined;
  /** A mask for each part of the pixels. */
  planes: Float32Array[] | undefined;
  added: Float32Array | undefined;
  base: StepBase | undefined;
  differences: Float32Array | undefined;
};

/** Sweeps over the bands of a source, from checkpoint to checkpoint of the tones after the steps of a plan. */
export class BandSweeps {
  /** What is mixed, part by part. */
  #mixed: ReadonlyMap<Part, Planes> = new Map();
  /** The steps of the plan, and those after which there may be colour. */
  #last = 0;
  #colouredFrom = Infinity;

  constructor(
    readonly source: Source,
    readonly checkpoints: Checkpoints,
  ) {}

  /** Takes up a plan, which the source's machine is to mix, with what it mixes. */
  follow(plan: CompiledPlan, mixed: ReadonlyMap<Part, Planes>): void {
    this.#mixed = mixed;
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
  over(runs: readonly LaidRun[], source: number | undefined, fresh: ReadonlySet<number>, takeBand?: TakeBand, changed?: Rows): void {
    const last = this.#last;
    const finish: TakeBand = (first, end, y, rows) => {
      if (!takeBand) return;
      if (this.source.grain) this.putMean(last, first, end, this.isColoured(last));
      takeBand(first, end, y, rows);
    };
    this.source.forBands((first, end, y, rows) => {
      if (changed && (changed.to <= y || changed.from >= y + rows)) {
        if (!this.source.grain) this.#putStep(last, first, end);
        return finish(first, end, y, rows);
      }
      this.source.parts.forEach((part, i) => this.#sweepPart(runs, source, fresh, { first, end, y }, part, i));
      finish(first, end, y, rows);
    });
  }

  #sweepPart(
    runs: readonly LaidRun[],
    source: number | undefined,
    fresh: ReadonlySet<number>,
    { first, end, y }: { first: number; end: number; y: number },
    part: Part,
    index: number,
  ): void {
    const machine = this.source.machine;
    const at = first + this.source.offsetOf(part);
    const keep = (step: number) => {
      if (!fresh.has(step)) return;
      const { tone, chroma } = this.checkpoints.at(step);
      machine.take("tone", tone, at);
      if (chroma) for (const name of CHROMA_PLANES) machine.take(name, chroma[name], at);
    };
    if (source !== undefined) this.#putStep(source, at, at + end - first);
    else {
      this.#mixBand(first, end, part);
      if (this.#laysColour) machine.clearChroma();
      keep(0);
    }
    for (const { to, planes, added, base, painted, differences, ...run } of runs) {
      if (run.mixed) this.#putMixed(first, end, part, run.mixed.mix.hueTable !== undefined);
      if (returnsColour(run)) machine.putOwnChroma(this.source.ownChroma(this.#mixed.get(part)!), first, end);
      applyRun(
        machine,
        run,
        { base, plane: planes?.[index], added, differences, painted: painted?.plane, first },
        this.source.bandPlace(y),
      );
      keep(to);
    }
  }

  /** Puts the tones after a step into the machine, of a band or a part of it, and the colour on them. */
  #putStep(step: number, from: number, to: number): void {
    const { machine } = this.source;
    const { tone, chroma } = this.checkpoints.at(step);
    machine.put("tone", tone, from, to);
    if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name], from, to);
    else if (this.#laysColour) machine.clearChroma();
  }

  /** Puts the mean light of the two tones of each pixel into the machine, and of the colour on them. */
  putMean(step: number, first: number, end: number, isColoured: boolean): void {
    const { machine, pixels, grain } = this.source;
    const { tone, chroma } = this.checkpoints.at(step);
    this.#putStep(step, first, end);
    machine.meanLight(tone, grain!.share, first + pixels, first, end - first);
    if (isColoured && chroma) machine.meanChroma(tone, first, chroma, first + pixels);
  }

  #mixBand(from: number, to: number, part: Part): void {
    const { machine } = this.source;
    this.#putMixed(from, to, part, machine.movesHues);
    machine.mix();
  }

  /** Puts the colour that is mixed into the machine, with its hues where they are moved. */
  #putMixed(from: number, to: number, part: Part, withHues: boolean): void {
    const colour = this.#mixed.get(part)!;
    this.source.putColour(from, to, colour);
    if (!withHues) return;
    const { hue, fade } = this.source.hues(colour);
    this.source.machine.put("hue", hue, from, to);
    this.source.machine.put("fade", fade, from, to);
  }
}
