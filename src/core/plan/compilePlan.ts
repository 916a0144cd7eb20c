import { pairTable } from "../kernels/pairTable";
import { hueCurve } from "../mix/hueCurve";
import type { Weights } from "../mix/weights";
import { LAST_ZONE } from "../zones/zone";
import { leavesAll, passCurve } from "./passCurve";
import type { Mix, Pass, Plan } from "./plan";

/**
 * Knots of a tone table: 384 a zone, so that whole zones, halves, thirds and quarters lie on knots
 * and a hold there is exact. docs/decisions/0001-tables.md has the measured errors.
 */
export const TONE_KNOTS = 384 * LAST_ZONE;
const HUE_KNOTS = 1440;

/** A plan as the kernels take it. Steps that change nothing are left out. */
export interface CompiledPlan {
  weights: Weights;
  /** Stops over hue in turns; absent where no hue is moved. */
  hueTable: Float32Array | undefined;
  /** Equal keys give equal hue tables. */
  hueKey: string;
  /** One for each pass of the plan, in order. */
  passes: CompiledPass[];
}

export interface CompiledPass {
  id: string;
  /** What is added to a tone, over tone 0–1; absent where the pass leaves all as it is. */
  table: Float32Array | undefined;
  /** Equal keys give equal tables. */
  key: string;
}

/**
 * Compiles plans, keeping the tables of parts that did not change since the last one:
 * an edit of one pass builds one table.
 */
export function planCompiler(): (plan: Plan) => CompiledPlan {
  let tables = new Map<string, Float32Array | undefined>();
  return (plan) => {
    const kept = new Map<string, Float32Array | undefined>();
    const tableFor = (key: string, build: () => Float32Array | undefined) => {
      const table = tables.has(key) ? tables.get(key) : kept.has(key) ? kept.get(key) : build();
      kept.set(key, table);
      return table;
    };
    const compiled: CompiledPlan = {
      weights: plan.mix.weights,
      hueTable: tableFor(hueKey(plan.mix), () => hueTable(plan.mix)),
      hueKey: hueKey(plan.mix),
      passes: plan.passes.map((pass) => {
        const key = passKey(pass);
        return { id: pass.id, key, table: tableFor(key, () => passTable(pass)) };
      }),
    };
    tables = kept;
    return compiled;
  };
}

/** Compiles one plan. */
export function compilePlan(plan: Plan): CompiledPlan {
  return planCompiler()(plan);
}

function hueKey(mix: Mix): string {
  return JSON.stringify([mix.huesOn, mix.hueKnots]);
}

function passKey(pass: Pass): string {
  return JSON.stringify([pass.on, pass.strength, pass.blend, pass.move]);
}

function hueTable(mix: Mix): Float32Array | undefined {
  if (!mix.huesOn || mix.hueKnots.every((knot) => knot.stops === 0)) return undefined;
  const curve = hueCurve(mix.hueKnots);
  return pairTable(HUE_KNOTS, (turn) => curve(turn * 360));
}

function passTable(pass: Pass): Float32Array | undefined {
  if (leavesAll(pass)) return undefined;
  const curve = passCurve(pass);
  return pairTable(TONE_KNOTS, (t) => curve(t * LAST_ZONE) / LAST_ZONE - t);
}
