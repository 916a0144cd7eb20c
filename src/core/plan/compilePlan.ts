import type { BlendMode } from "../blend/blend";
import { contrastMaskStops } from "../contrast/contrastMask";
import { pairTable } from "../kernels/pairTable";
import { hueCurve } from "../mix/hueCurve";
import type { Weights } from "../mix/weights";
import type { Spread } from "../spatial/toneBase";
import { zonesOnShare } from "../zones/keptZones";
import { TONE_KNOTS } from "../zones/toneKnots";
import { LAST_ZONE } from "../zones/zone";
import { passInSet } from "./editPasses";
import { isTonePass, leavesAll, passCurve, type TonePass } from "./passCurve";
import type { ContrastMaskMove, Mix, Pass, Plan } from "./plan";

const HUE_KNOTS = 1440;
/** Knots of tables over the blurred tone and of zones switched off: smooth, so that few do. */
const SOFT_KNOTS = 640;

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
  /** Absent where the pass leaves all as it is. Equal passes give the very same step. */
  step: CompiledStep | undefined;
  /** Equal keys give equal steps. */
  key: string;
}

export type CompiledStep = ToneStep | SpatialStep;

/** What is added to a tone, over tone 0–1. */
export interface ToneStep {
  kind: "tone";
  table: Float32Array;
}

/** Stops given to a place by its surroundings. */
export interface SpatialStep {
  kind: "spatial";
  spread: Spread;
  /** Stops over the tone of the surroundings. */
  stops: Float32Array;
  /** How far it acts, 0–1, over the tone of the place; absent where it does everywhere. */
  share: Float32Array | undefined;
  blend: BlendMode;
}

/**
 * Compiles plans, keeping the tables of parts that did not change since the last one:
 * an edit of one pass builds one table.
 */
export function planCompiler(): (plan: Plan) => CompiledPlan {
  let hues: { key: string; table: Float32Array | undefined } = { key: "", table: undefined };
  let steps = new Map<string, CompiledStep | undefined>();
  return (plan) => {
    const key = hueKey(plan.mix);
    if (key !== hues.key) hues = { key, table: hueTable(plan.mix) };
    const kept = new Map<string, CompiledStep | undefined>();
    const passes = plan.passes.map((own) => {
      const pass = passInSet(plan, own);
      const passKey = keyOf(pass);
      if (!kept.has(passKey)) kept.set(passKey, steps.has(passKey) ? steps.get(passKey) : compiledStep(pass));
      return { id: pass.id, key: passKey, step: kept.get(passKey) };
    });
    steps = kept;
    return { weights: plan.mix.weights, hueTable: hues.table, hueKey: key, passes };
  };
}

/** Compiles one plan. */
export function compilePlan(plan: Plan): CompiledPlan {
  return planCompiler()(plan);
}

function hueKey(mix: Mix): string {
  return JSON.stringify([mix.huesOn, mix.hueKnots]);
}

function keyOf(pass: Pass): string {
  return JSON.stringify([pass.on, pass.strength, pass.blend, pass.zonesOff, pass.move]);
}

function hueTable(mix: Mix): Float32Array | undefined {
  if (!mix.huesOn || mix.hueKnots.every((knot) => knot.stops === 0)) return undefined;
  const curve = hueCurve(mix.hueKnots);
  return pairTable(HUE_KNOTS, (turn) => curve(turn * 360));
}

function compiledStep(pass: Pass): CompiledStep | undefined {
  if (leavesAll(pass)) return undefined;
  return isTonePass(pass) ? toneStep(pass) : spatialStep(pass, pass.move as ContrastMaskMove);
}

function toneStep(pass: TonePass): ToneStep {
  const curve = passCurve(pass);
  return { kind: "tone", table: pairTable(TONE_KNOTS, (t) => curve(t * LAST_ZONE) / LAST_ZONE - t) };
}

function spatialStep({ strength, blend, zonesOff }: Pass, { radius, edges, density }: ContrastMaskMove): SpatialStep {
  return {
    kind: "spatial",
    spread: { radius, edges },
    stops: pairTable(SOFT_KNOTS, (surrounding) => contrastMaskStops(surrounding, strength * density)),
    share: zonesOff.length ? pairTable(SOFT_KNOTS, (t) => zonesOnShare(t * LAST_ZONE, zonesOff)) : undefined,
    blend,
  };
}
