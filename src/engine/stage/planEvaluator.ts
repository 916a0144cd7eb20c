import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { Step } from "@/core/steps/step";
import type { TonePlane } from "@/core/units";
import type { Bases } from "../evaluate/bases";
import { colouredFrom, gathers, looksClose, runsOf, sweepsOf, type ActivePasses, type Run } from "../evaluate/runs";
import type { ChromaPlanes } from "../machine/chromaBand";
import { tablesOf, TableFuser } from "../machine/fuseTables";
import { rowsSince } from "../machine/grownPlane";
import type { MaskBases } from "../masks/maskKeys";
import type { StageMasks } from "../masks/stageMasks";
import type { Source } from "../source/source";
import { isLaidOut, laidFor } from "../steps/steps";
import { BandSweeps, type LaidRun, type ShownOnTheWay } from "./bandSweeps";
import { Checkpoints, keysAfter, NO_KEYS, passPainted, type Checkpoint, type StepKeys } from "./checkpoints";
import type { StageColour } from "./stageColour";
import { StepBases, type Entering } from "./stepBases";

/** What is evaluated: a plan, around the passes in hand. */
export interface Evaluated {
  plan: CompiledPlan;
  active: ActivePasses;
  /** What a part of a picture needs of the whole; absent where the stage is that. */
  given: Bases | undefined;
  /** Whether a hand moves: then only what the next frame goes on from is kept, and all else made when it is asked for. */
  isMoving: boolean;
}

/** Evaluates plans on a source, one after the other, each from what is still good of the one before. */
export class PlanEvaluator {
  readonly #fuser = new TableFuser();
  /** Tones after step i: 0 is the mix, i is pass i. */
  readonly #checkpoints: Checkpoints;
  readonly #sweeps: BandSweeps;
  /** What passes need of the whole of what enters them. */
  readonly #bases: StepBases;
  /** The versions of what was laid out that the tones after their passes were made with. */
  readonly #laid = new Map<number, number>();
  #keys: StepKeys = NO_KEYS;
  #now: Evaluated | undefined;

  constructor(
    readonly source: Source,
    readonly masks: StageMasks,
    readonly colour: StageColour,
  ) {
    const { place, size } = source;
    this.#bases = new StepBases(size, Math.max(place.whole.width, place.whole.height));
    this.#checkpoints = new Checkpoints(source.pixels * source.parts.length);
    this.#sweeps = new BandSweeps(source, this.#checkpoints);
  }

  /** What was evaluated last; undefined before anything was. */
  get now(): Evaluated | undefined {
    return this.#now;
  }

  /** What steps gathered of the whole of the tones that enter them, by the step. */
  get stepBases() {
    return this.#bases.all();
  }

  /** Whether colour may lie on the tones that leave the plan. */
  get isColoured(): boolean {
    return this.#now !== undefined && this.#sweeps.isColoured(this.#now.plan.passes.length);
  }

  /** Takes up a plan; nothing of it is evaluated yet. */
  follow(now: Evaluated): void {
    this.#now = now;
    const { plan, given } = now;
    this.#sweeps.follow(plan, new Map(this.source.parts.map((part) => [part, this.colour.of(part, plan, given?.colour)])));
  }

  /** The tones after a step, part by part, and what is known of them: made where they were not kept. Not to be changed. */
  checkpoint(step: number): Checkpoint {
    if (!this.#checkpoints.hold([step], this.#keys)) this.#evaluate(undefined, step);
    return this.#checkpoints.at(step);
  }

  /** The tones after a step: of grain, their mean. Not to be changed. */
  tonesAfter(step: number): TonePlane {
    const checkpoint = this.checkpoint(step);
    if (!this.source.grain) return checkpoint.tone;
    if (checkpoint.mean) return checkpoint.mean;
    const mean = (checkpoint.mean = new Float32Array(this.source.pixels));
    this.#sweeps.takeMean(step, { tone: mean });
    return mean;
  }

  /** The colour laid on the tones after a step; undefined where there is none. Not to be changed. */
  chromaAfter(step: number): ChromaPlanes | undefined {
    const checkpoint = this.checkpoint(step);
    if (!checkpoint.chroma || !this.source.grain) return checkpoint.chroma;
    if (checkpoint.meanChroma) return checkpoint.meanChroma;
    const mean = { a: new Float32Array(this.source.pixels), b: new Float32Array(this.source.pixels) };
    this.#sweeps.takeMean(step, mean);
    return (checkpoint.meanChroma = mean);
  }

  /** What was counted of tones holds no longer. */
  forgetCounts(): void {
    this.#checkpoints.forgetCounts();
  }

  /** Brings the tones up to date with the plan; finished ones are shown on the way where that is asked for. */
  evaluate(shown?: ShownOnTheWay): void {
    const before = this.#keys;
    const { plan, given } = this.#now!;
    const keys = (this.#keys = keysAfter(before, plan));
    this.masks.follow(plan, keys.steps[0]!, plan.clean);
    const barriers = this.#barriers();
    this.#bases.keep(barriers);
    const painted = passPainted(before, keys);
    if (painted !== undefined && Math.max(...barriers) <= painted) {
      const kept = this.#kept(barriers);
      const holds = this.#checkpoints.hold([...kept, plan.passes.length, painted], before);
      if (holds && this.#evaluatePainted(painted, runsOf(plan, kept), given, shown)) return;
    }
    this.#evaluate(shown);
  }

  /** Passes before which the whole of the tones must be there: a sweep over the bands begins anew with each. */
  #barriers(): Set<number> {
    const { plan, given } = this.#now!;
    return new Set(plan.passes.flatMap((pass, i) => (looksClose(pass) || (!given && gathers(pass)) ? [i] : [])));
  }

  /**
   * Steps after which tones are kept: under a moving hand what the next frame goes on from, else all that is counted and read; and one
   * more, if one is asked for.
   */
  #kept(barriers: ReadonlySet<number>, more?: number): Set<number> {
    const { plan, active, isMoving } = this.#now!;
    const activeSteps = plan.passes.slice(active.first, active.end).flatMap(({ step }) => step ?? []);
    // What is painted is shown anew in a few bands alone, the others from the finished tones.
    const isLean = isMoving && !activeSteps.some(isLaidOut);
    const isMixMoved = isLean && active.end === 0;
    const goesOnFrom = [...(hasMasks(plan) ? [0] : []), ...(isMixMoved ? [] : [active.first]), ...barriers];
    // What is asked for after a lean frame is counted, as a rule: all of that in one go.
    const around = !isLean
      ? [0, active.end, plan.passes.length]
      : more === undefined
        ? []
        : [more, active.first, active.end, plan.passes.length];
    return new Set([...goesOnFrom, ...around]);
  }

  /**
   * Runs the plan from the last step whose tones are still good. A pass that gathers needs the whole of what enters it, so the sweep over
   * the bands begins anew there, unless what it needs is given. Masks may need the whole mix, so where there are any it is made first.
   */
  #evaluate(shown: ShownOnTheWay | undefined, more?: number): void {
    const { plan, given } = this.#now!;
    const keys = this.#keys;
    const barriers = this.#barriers();
    const kept = this.#kept(barriers, more);
    const start = this.#checkpoints.startStep(keys, kept);
    const fresh = this.#checkpoints.renew(keys, kept, start, colouredFrom(plan));
    if (!shown && fresh.size === 0) return;
    const isMasked = hasMasks(plan);
    const end = shown ? plan.passes.length : Math.max(...fresh);
    const runs = runsOf(plan, kept).filter(({ from, to }) => from >= (start ?? 0) && to <= end);
    let masks = given?.masks;
    sweepsOf(runs, isMasked ? new Set([0, ...barriers]) : barriers, start).forEach((sweep, i, sweeps) => {
      const source = i === 0 && start === undefined ? undefined : (sweep[0]?.from ?? start!);
      if (source !== undefined && isMasked) masks ??= this.masks.gather();
      const finish = i === sweeps.length - 1 ? shown : undefined;
      const quick = finish && this.#finishedQuickly(sweep, source === undefined, fresh, finish);
      const laid = (quick?.sweep ?? sweep).map((run) => this.#layRun(run, given, masks));
      this.#sweeps.over(laid, source, fresh, quick?.shown ?? finish);
    });
  }

  /**
   * Where a sweep ends in tables whose tones nobody keeps, they and the look become one table: from tones to levels, or with grain from
   * tones to light, whose mean is looked at. Undefined where that cannot be.
   */
  #finishedQuickly(
    sweep: readonly Run[],
    isFromMix: boolean,
    fresh: ReadonlySet<number>,
    shown: ShownOnTheWay,
  ): { sweep: readonly Run[]; shown: ShownOnTheWay } | undefined {
    const last = sweep.at(-1);
    const tables = last && !last.mask && !fresh.has(last.to) ? tablesOf(last.steps) : undefined;
    const { looks } = shown;
    if (!last || !tables || shown.isColoured || !looks.isSmooth) return undefined;
    const moved = this.#now!.active.end - last.from;
    const before = sweep.slice(0, -1);
    // The tone of what is mixed need not be looked up either where nobody keeps it.
    const mixesLight = isFromMix && before.length === 0 && !fresh.has(0);
    const over = mixesLight ? "light" : "tone";
    if (!this.source.grain) {
      const table = this.#fuser.shown(tables, moved, looks.table, over);
      return { sweep: before, shown: { ...shown, looks: { ...looks, table }, mixesLight } };
    }
    const step: Step = { kind: "table", table: this.#fuser.lit(tables, moved, over) };
    const table = this.#fuser.shownOfLight(looks.table);
    return { sweep: [...before, { ...last, steps: [step] }], shown: { ...shown, looks: { ...looks, table }, isLight: true, mixesLight } };
  }

  /**
   * Where a pass was painted on and nothing else changed, only the bands that were painted over are done anew; false where that may be all.
   */
  #evaluatePainted(pass: number, runs: readonly Run[], given: Bases | undefined, shown: ShownOnTheWay | undefined): boolean {
    const earlier = this.#laid.get(pass);
    const laid = runs.filter(({ from }) => from >= pass).map((run) => this.#layRun(run, given, given?.masks));
    const rows = laid[0]?.laid && rowsSince(laid[0].laid, earlier);
    if (!rows) return false;
    this.#sweeps.over(laid, pass, this.#checkpoints.carryOver(this.#keys, pass), shown, rows);
    return true;
  }

  /** A run with its mask laid out, and what it needs of the whole picture. */
  #layRun(run: Run, given: Bases | undefined, masks: MaskBases | undefined): LaidRun {
    const steps = this.#fuser.quickest(run.steps);
    if (steps.length === 0) return { ...run, steps, laid: undefined, masks: undefined, added: undefined, base: undefined };
    const { plan } = this.#now!;
    const { from, mask } = run;
    const pass = plan.passes[from]!;
    const base = given ? given.steps.get(from) : gathers(pass) ? this.#bases.gather(run, this.#entering(from)) : undefined;
    const laid = laidFor(steps[0]!, {
      stops: (placed) => this.masks.stops({ id: pass.id, placed, frame: plan.frame }),
      differences: (radius) => this.#bases.differences(from, radius, this.#entering(from)),
    });
    if (laid) this.#laid.set(from, laid.version);
    return {
      ...run,
      steps,
      laid,
      masks: mask && this.source.parts.map((part) => this.masks.mask(mask, masks, part)),
      added: mask && this.masks.repair(mask, masks),
      base,
    };
  }

  /** The tones that enter a step; of grain, their mean. */
  #entering(step: number): Entering {
    return { key: this.#keys.tones[step]!, tones: () => this.tonesAfter(step) };
  }
}

const hasMasks = ({ passes }: CompiledPlan) => passes.some(({ step, mask }) => step && mask);
