import type { ChromaPlanes } from "../machine/chromaBand";
import type { CompiledPass, CompiledPlan } from "@/core/plan/compilePlan";
import { keepsTones } from "../steps/steps";

/** What tells the tones after each step of a plan: 0 is the mix, i is pass i. */
export interface StepKeys {
  mixKey: string;
  passes: readonly CompiledPass[];
  /** Equal keys, equal tones and colour. */
  steps: readonly string[];
  /** Equal keys, equal tones, whatever colour is laid on them. */
  tones: readonly string[];
}
export const NO_KEYS: StepKeys = { mixKey: "", passes: [], steps: [], tones: [] };

/** The keys of a plan, those of the plan before it up to where the two part. */
export function keysAfter(before: StepKeys, plan: CompiledPlan): StepKeys {
  const mixKey = `${plan.spotsKey} ${plan.clean} ${plan.colourKey} ${JSON.stringify(plan.weights)} ${plan.hueKey}`;
  let same = mixKey === before.mixKey;
  let sameTones = same;
  const steps = [same ? before.steps[0]! : uniqueKey()];
  const tones = [same ? before.tones[0]! : uniqueKey()];
  plan.passes.forEach((pass, i) => {
    const known = before.passes[i];
    same = same && known?.key === pass.key;
    sameTones = sameTones && known !== undefined && (known.key === pass.key || (leavesTones(known) && leavesTones(pass)));
    steps.push(same ? before.steps[i + 1]! : pass.step ? uniqueKey() : steps[i]!);
    tones.push(sameTones ? before.tones[i + 1]! : leavesTones(pass) ? tones[i]! : uniqueKey());
  });
  return { mixKey, passes: plan.passes, steps, tones };
}

const leavesTones = ({ step }: CompiledPass) => !step || keepsTones(step);

/** The pass of a plan that alone differs from the plan before it, and that by strokes which dodge and burn alone. */
export function passPainted(before: StepKeys, { mixKey, passes }: StepKeys): number | undefined {
  if (mixKey !== before.mixKey || passes.length !== before.passes.length) return undefined;
  const isChanged = ({ key }: CompiledPass, i: number) => key !== before.passes[i]!.key;
  const first = passes.findIndex(isChanged);
  if (first < 0 || first !== passes.findLastIndex(isChanged)) return undefined;
  const [pass, old] = [passes[first]!, before.passes[first]!];
  return pass.step?.kind === "stops" && old.step?.kind === "stops" && pass.bareKey === old.bareKey ? first : undefined;
}

/** The tones after a step, and colour on them, good for as long as the step has this key. */
export interface Checkpoint {
  key: string;
  tone: Float32Array;
  /** Colour beside the tones, once a pass before this has laid any. */
  chroma: ChromaPlanes | undefined;
  /** One tone and colour a pixel, where `tone` holds two. */
  mean: Float32Array | undefined;
  meanChroma: ChromaPlanes | undefined;
  histogram: Uint32Array | undefined;
}

/** Planes kept for reuse. */
const MOST_SPARE = 6;

/** Nothing is known of a checkpoint but what it holds. */
const UNCOUNTED = { mean: undefined, meanChroma: undefined, histogram: undefined };

/** Tones after some steps of a plan, kept from one plan to the next for as long as they hold. */
export class Checkpoints {
  readonly #pixels: number;
  readonly #kept = new Map<number, Checkpoint>();
  #spare: Float32Array[] = [];

  constructor(pixels: number) {
    this.#pixels = pixels;
  }

  /** Of a step that is kept. */
  at(step: number): Checkpoint {
    return this.#kept.get(step)!;
  }

  /** Whether all of some steps hold. */
  hold(steps: Iterable<number>, keys: StepKeys): boolean {
    return [...steps].every((step) => this.#isGood(step, keys));
  }

  /** Where to start so that every step to keep gets its tones: the last good one before the first that is missing. */
  startStep(keys: StepKeys, kept: ReadonlySet<number>): number | undefined {
    const steps = [...kept].sort((a, b) => a - b);
    const missing = steps.findIndex((step) => !this.#isGood(step, keys));
    return missing < 0 ? steps.at(-1) : steps[missing - 1];
  }

  /**
   * Makes those to keep that are missing, to be filled, with room for colour from a step on, and lets go of what is wrong or no longer
   * wanted; returns their steps.
   */
  renew(keys: StepKeys, kept: ReadonlySet<number>, start: number | undefined, colouredFrom: number): Set<number> {
    for (const [step, { tone, chroma }] of this.#kept) {
      if (step === start || (kept.has(step) && this.#isGood(step, keys))) continue;
      this.#kept.delete(step);
      this.#spare.push(tone, ...(chroma ? [chroma.a, chroma.b] : []));
    }
    const fresh = new Set([...kept].filter((step) => !this.#kept.has(step)));
    for (const step of fresh)
      this.#kept.set(step, {
        key: keys.steps[step]!,
        tone: this.#plane(),
        chroma: step >= colouredFrom ? { a: this.#plane(), b: this.#plane() } : undefined,
        ...UNCOUNTED,
      });
    this.#spare.length = Math.min(this.#spare.length, MOST_SPARE);
    return fresh;
  }

  /** Takes those after a step over as they are, for tones that differ in a part only; returns their steps. */
  carryOver(keys: StepKeys, after: number): Set<number> {
    const carried = [...this.#kept].filter(([step]) => step > after);
    for (const [step, checkpoint] of carried) Object.assign(checkpoint, { key: keys.steps[step]!, ...UNCOUNTED });
    return new Set(carried.map(([step]) => step));
  }

  /** What was counted of them holds no longer. */
  forgetCounts(): void {
    for (const checkpoint of this.#kept.values()) checkpoint.histogram = undefined;
  }

  #isGood(step: number, keys: StepKeys): boolean {
    return this.#kept.get(step)?.key === keys.steps[step];
  }

  #plane(): Float32Array {
    return this.#spare.pop() ?? new Float32Array(this.#pixels);
  }
}

let keysMade = 0;
function uniqueKey(): string {
  return String(++keysMade);
}
