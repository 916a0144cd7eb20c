import type { CompiledPlan, SpatialStep } from "@/core/plan/compilePlan";
import { LEAST_FUSED, type TableFuser } from "./fuseTables";

/** Passes done in one go: tone tables, or one spatial step. */
export interface Run {
  /** Passes done before it and with it. */
  from: number;
  to: number;
  tables: readonly Float32Array[];
  spatial: SpatialStep | undefined;
}

/** The passes in hand: from one up to another, so that a single pass and a set are told alike. */
export interface Hand {
  first: number;
  end: number;
}
/** Nothing in hand. */
export const NO_HAND: Hand = { first: 0, end: 0 };

/**
 * The plan's passes as runs. A run ends where the tones are wanted (around the hand) and around every spatial step;
 * passes that change nothing are in a run without doing anything. Without a fuser every table stays by itself, exact.
 */
export function runsOf(plan: CompiledPlan, hand: Hand, fuser?: TableFuser): Run[] {
  const cuts = new Set([0, plan.passes.length, hand.first, hand.end]);
  plan.passes.forEach(({ step }, i) => step?.kind === "spatial" && cuts.add(i).add(i + 1));
  const places = [...cuts].sort((a, b) => a - b);
  return places.slice(1).map((to, i) => {
    const from = places[i]!;
    const steps = plan.passes.slice(from, to).flatMap(({ step }) => (step ? [step] : []));
    const spatial = steps.find((step) => step.kind === "spatial");
    const tables = steps.flatMap((step) => (step.kind === "tone" ? [step.table] : []));
    return { from, to, spatial, tables: fuser && tables.length >= LEAST_FUSED ? [fuser.fuse(tables)] : tables };
  });
}
