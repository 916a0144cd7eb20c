import type { Pass } from "../passes/pass";
import { actsOnColour } from "../passes/passKinds";
import type { PassSet, Plan } from "./plan";

/** Most passes of a plan. */
export const MOST_PASSES = 200;
/** Most characters of a name. */
export const LONGEST_NAME = 80;

/** How many of the passes come before the mix: those of colour. */
export function passesBeforeMix({ passes }: Pick<Plan, "passes">): number {
  const first = passes.findIndex(({ move }) => !actsOnColour(move));
  return first < 0 ? passes.length : first;
}

/**
 * The places a pass may have among others, those of colour before the mix and those of tones after it: from the first to the last, both in.
 */
function placesFor({ move }: Pass, others: readonly Pass[]): [first: number, last: number] {
  const mix = passesBeforeMix({ passes: [...others] });
  return actsOnColour(move) ? [0, mix] : [mix, others.length];
}

/**
 * A pass put in after another, or at the end where `afterId` is none of the plan's, on its side of the mix. Between two passes of a set it
 * joins the set. Undefined where no more fit.
 */
export function insertPass(plan: Plan, pass: Pass, afterId?: string): Plan | undefined {
  if (plan.passes.length >= MOST_PASSES) return undefined;
  const after = plan.passes.findIndex(({ id }) => id === afterId);
  const [first, last] = placesFor(pass, plan.passes);
  const at = Math.min(Math.max(after < 0 ? plan.passes.length : after + 1, first), last);
  return withSetsSettled({ ...plan, passes: plan.passes.toSpliced(at, 0, pass) }, at);
}

/** A name no other pass has: the one given, or with a number. */
export function freshPassName({ passes }: Pick<Plan, "passes">, wanted: string): string {
  return freshName(new Set(passes.map(({ name }) => name)), wanted);
}

/** A name that is not taken: the one wanted, or with a number. */
export function freshName(taken: ReadonlySet<string>, wanted: string): string {
  const base = wanted.slice(0, LONGEST_NAME - 4);
  let name = base;
  for (let number = 2; taken.has(name); number++) name = `${base} ${number}`;
  return name;
}

/** A copy of a pass under another id, named as it is but for the number that tells it from others of a plan. */
export function copyOf(plan: Pick<Plan, "passes">, pass: Pass, id: string): Pass {
  return { ...structuredClone(pass), id, name: freshPassName(plan, pass.name.replace(/ \d+$/, "")) };
}

export function removePass(plan: Plan, id: string): Plan {
  return withoutEmptySets({ ...plan, passes: plan.passes.filter((pass) => pass.id !== id) });
}

/**
 * A pass moved to a place in the order (0 first; beyond the ends of its side of the mix counts as the end). Moved in between two passes of
 * a set it joins the set; moved away from its set it leaves it.
 */
export function movePass(plan: Plan, id: string, to: number): Plan {
  const from = plan.passes.findIndex((pass) => pass.id === id);
  if (from < 0) return plan;
  const [first, last] = placesFor(plan.passes[from]!, plan.passes.toSpliced(from, 1));
  const target = Math.min(Math.max(to, first), last);
  if (target === from) return plan;
  const passes = plan.passes.toSpliced(from, 1).toSpliced(target, 0, plan.passes[from]!);
  return withSetsSettled({ ...plan, passes }, target);
}

/** The plan with only the passes before a place; sets without passes go. */
export function planBefore(plan: Plan, place: number): Plan {
  return withoutEmptySets({ ...plan, passes: plan.passes.slice(0, place) });
}

/** First place and one past the last of a set's passes. */
export function placeOfSet(plan: Plan, setId: string): { first: number; end: number } {
  const first = plan.passes.findIndex(({ set }) => set === setId);
  return { first, end: plan.passes.findLastIndex(({ set }) => set === setId) + 1 };
}

/**
 * Ties a pass to the one before it: into that one's set, or both into the new one given. A set the pass was in comes
 * along whole. Undefined where there is none before on this side of the mix, or both are of one set already.
 */
export function tieToBefore(plan: Plan, passId: string, made: PassSet): Plan | undefined {
  const at = plan.passes.findIndex(({ id }) => id === passId);
  const [before, pass] = [plan.passes[at - 1], plan.passes[at]];
  if (!before || !pass || actsOnColour(before.move) !== actsOnColour(pass.move) || (before.set !== null && before.set === pass.set))
    return undefined;
  const joined = before.set ?? pass.set ?? made.id;
  const isTied = ({ id, set }: Pass) => id === passId || id === before.id || (set !== null && (set === pass.set || set === before.set));
  return withoutEmptySets({
    ...plan,
    sets: plan.sets.some(({ id }) => id === joined) ? plan.sets : [...plan.sets, made],
    passes: plan.passes.map((other) => (isTied(other) ? { ...other, set: joined } : other)),
  });
}

/** Takes a pass out of its set; what stood after it in the set leaves with it, as a set's passes are neighbours. */
export function untieFrom(plan: Plan, passId: string): Plan {
  const at = plan.passes.findIndex(({ id }) => id === passId);
  const set = plan.passes[at]?.set ?? null;
  if (set === null) return plan;
  return withoutEmptySets({ ...plan, passes: plan.passes.map((pass, i) => (i >= at && pass.set === set ? { ...pass, set: null } : pass)) });
}

/** Unties a whole set; its passes stay, each at its own strength. */
export function untieSet(plan: Plan, setId: string): Plan {
  return withoutEmptySets({ ...plan, passes: plan.passes.map((pass) => (pass.set === setId ? { ...pass, set: null } : pass)) });
}

/** A pass as it works within its set: on only with the set, at both strengths together (0–4). */
export function passInSet({ sets }: Pick<Plan, "sets">, pass: Pass): Pass {
  const set = sets.find(({ id }) => id === pass.set);
  return set ? { ...pass, on: pass.on && set.on, strength: pass.strength * set.strength } : pass;
}

/** The set of the pass at `at` as its neighbours allow: theirs if they share one, none if it stands apart from its own. */
function withSetsSettled(plan: Plan, at: number): Plan {
  const pass = plan.passes[at]!;
  const [before, after] = [plan.passes[at - 1]?.set ?? null, plan.passes[at + 1]?.set ?? null];
  const isAlone = pass.set === null || !plan.passes.some((other, i) => i !== at && other.set === pass.set);
  const set = before !== null && before === after ? before : isAlone || pass.set === before || pass.set === after ? pass.set : null;
  return withoutEmptySets({ ...plan, passes: plan.passes.with(at, { ...pass, set }) });
}

function withoutEmptySets(plan: Plan): Plan {
  return { ...plan, sets: plan.sets.filter(({ id }) => plan.passes.some(({ set }) => set === id)) };
}
