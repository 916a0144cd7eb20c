import type { BlendMode } from "../blend/blend";
import { contrastMaskStops } from "../contrast/contrastMask";
import { gateShare, readsEnteringTone, type Gate } from "../gate/gate";
import { endShare, toneStops } from "../exposure/exposure";
import { pairTable } from "../kernels/pairTable";
import { readTable } from "../kernels/reference";
import { hueCurve } from "../mix/hueCurve";
import type { Weights } from "../mix/weights";
import type { Region } from "../region/region";
import { gateKey } from "../gate/gateKey";
import { shapeKey, strokesKey } from "../region/shapeKey";
import type { Spread } from "../spatial/toneBase";
import { zonesOnShare } from "../zones/keptZones";
import { TONE_KNOTS } from "../zones/toneKnots";
import { LAST_ZONE } from "../zones/zone";
import { passInSet } from "./editPasses";
import { isTonePass, leavesAll, passCurve, type TonePass } from "./passCurve";
import type { ContrastMaskMove, EdgeBurnMove, ExposureMove, Mix, Pass, Plan } from "./plan";

const HUE_KNOTS = 1440;
/** Knots of tables over the blurred tone and of zones switched off: smooth, so that few do. */
const SOFT_KNOTS = 640;

/** Acts fully on all tones. */
const EVERYWHERE = pairTable(1, () => 1);
const NOWHERE = pairTable(1, () => 0);

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
  /** Where and how far it acts, beyond what the step itself tells by tone; absent where it acts everywhere. */
  mask: CompiledMask | undefined;
  /** Equal keys give equal steps and masks. */
  key: string;
  /** The same but for strokes that dodge and burn: passes with equal ones differ by these alone. */
  bareKey: string;
}

/** Where a pass acts. */
export interface CompiledMask {
  region: Region | undefined;
  /** What is left of the gate once the step has taken its share. */
  gate: Gate | undefined;
  /** Equal keys give equal masks on the same picture and mix. */
  key: string;
}

export type CompiledStep = ToneStep | SpatialStep | ExposureStep;

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
  /**
   * How far it acts over the tone of the place. Meeting the print normally it scales the stops, which hold the strength already, and
   * is absent where it is 1 everywhere; with a blend it is how far the blended tone comes through, strength included.
   */
  share: Float32Array | undefined;
  blend: BlendMode;
}

/** Stops given to places, and by tone. */
export interface ExposureStep {
  kind: "exposure";
  /** What tells the stops of each place: see stopsPlane. */
  move: PlacedStops;
  /** Stops over the tone of the place, besides those of the place itself. */
  stops: Float32Array;
  /** How much of the place's stops reaches a tone. */
  painted: Float32Array;
  /** Whether less light darkens bare paper too, or leaves it. */
  onPaper: boolean;
  blend: BlendMode;
  /** With a blend: how far the blended tone comes through, over the tone of the place. */
  share: Float32Array | undefined;
}

/** A move that gives stops to places. */
export type PlacedStops = ExposureMove | EdgeBurnMove;

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
    const regions = new Map(plan.regions.map((region) => [region.id, { region, key: regionKey(region) }]));
    const passes = plan.passes.map((own) => {
      const pass = passInSet(plan, own);
      const isMasked = compiledMask(pass, regions) !== undefined;
      const bareKey = `${bareKeyOf(pass)} ${isMasked}`;
      const stepKey = pass.move.kind === "exposure" ? `${bareKey} ${strokesKey(pass.move.strokes)}` : bareKey;
      if (!kept.has(stepKey)) kept.set(stepKey, steps.has(stepKey) ? steps.get(stepKey) : compiledStep(pass, isMasked));
      const step = kept.get(stepKey);
      const mask = step && compiledMask(pass, regions);
      const masked = (key: string) => (mask ? `${key} ${mask.key}` : key);
      return { id: pass.id, step, mask, key: masked(stepKey), bareKey: masked(bareKey) };
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

/** A pass by all it is but strokes that dodge and burn, of which there may be thousands. */
function bareKeyOf({ on, strength, blend, zonesOff, gate, move }: Pass): string {
  return JSON.stringify([on, strength, blend, zonesOff, gate && gateKey(gate), move.kind === "exposure" ? { ...move, strokes: [] } : move]);
}

/** Equal keys, equal regions; names do not change where a region lies. */
export function regionKey({ shapes, soften, fit, invert, density }: Region): string {
  return `${shapes.map(shapeKey).join(" ")} ${soften} ${fit} ${invert} ${density}`;
}

/** The mask of one pass of a plan, whether it does anything or not; undefined where it acts everywhere. */
export function maskOf(plan: Plan, pass: Pass): CompiledMask | undefined {
  const region = plan.regions.find(({ id }) => id === pass.region);
  return compiledMask(pass, new Map(region ? [[region.id, { region, key: regionKey(region) }]] : []));
}

function compiledMask(pass: Pass, regions: ReadonlyMap<string, { region: Region; key: string }>): CompiledMask | undefined {
  const known = pass.region === null ? undefined : regions.get(pass.region);
  const gate = pass.gate && isLeft(pass.gate) ? pass.gate : undefined;
  if (!known && !gate) return undefined;
  return { region: known?.region, gate, key: `${known?.key ?? ""} ${gate ? gateKey(gate) : ""}` };
}

/** Whether a gate does more than the step's curve does already. */
function isLeft(gate: Gate): boolean {
  return !readsEnteringTone(gate) || gate.hue !== null;
}

function hueTable(mix: Mix): Float32Array | undefined {
  if (!mix.huesOn || mix.hueKnots.every((knot) => knot.stops === 0)) return undefined;
  const curve = hueCurve(mix.hueKnots);
  return pairTable(HUE_KNOTS, (turn) => curve(turn * 360));
}

function compiledStep(pass: Pass, isMasked: boolean): CompiledStep | undefined {
  if (leavesAll(pass)) return undefined;
  // Through a mask exposure is scaled as light: see CORE, "A pass, in one line".
  if (pass.move.kind === "exposure" && (isMasked || !isTonePass(pass))) return exposureStep(pass, pass.move);
  if (pass.move.kind === "edge-burn") return edgeBurnStep(pass, pass.move);
  return isTonePass(pass) ? toneStep(pass) : spatialStep(pass, pass.move as ContrastMaskMove);
}

function exposureStep({ strength, blend, zonesOff, gate }: Pass, move: ExposureMove): ExposureStep {
  const isNormal = blend === "normal";
  const reach = isNormal ? (shareTable(zonesOff, gate, strength) ?? EVERYWHERE) : EVERYWHERE;
  const ends = (t: number) => (move.endsHeld ? endShare(t * LAST_ZONE) : 1);
  return {
    kind: "exposure",
    move,
    onPaper: false,
    stops: pairTable(SOFT_KNOTS, (t) => readTable(reach, t) * toneStops(move, t * LAST_ZONE)),
    painted: pairTable(SOFT_KNOTS, (t) => readTable(reach, t) * ends(t)),
    blend,
    share: isNormal ? undefined : (shareTable(zonesOff, gate, strength) ?? EVERYWHERE),
  };
}

function edgeBurnStep({ strength, blend, zonesOff, gate }: Pass, move: EdgeBurnMove): ExposureStep {
  const share = shareTable(zonesOff, gate, strength) ?? EVERYWHERE;
  const isNormal = blend === "normal";
  return {
    kind: "exposure",
    move,
    onPaper: move.onPaper,
    stops: NOWHERE,
    painted: isNormal ? share : EVERYWHERE,
    blend,
    share: isNormal ? undefined : share,
  };
}

function toneStep(pass: TonePass): ToneStep {
  const curve = passCurve(pass);
  return { kind: "tone", table: pairTable(TONE_KNOTS, (t) => curve(t * LAST_ZONE) / LAST_ZONE - t) };
}

function spatialStep({ strength, blend, zonesOff, gate }: Pass, { radius, edges, density }: ContrastMaskMove): SpatialStep {
  const isNormal = blend === "normal";
  return {
    kind: "spatial",
    spread: { radius, edges },
    stops: pairTable(SOFT_KNOTS, (surrounding) => contrastMaskStops(surrounding, isNormal ? strength * density : density)),
    share: isNormal ? shareTable(zonesOff, gate, 1) : (shareTable(zonesOff, gate, strength) ?? EVERYWHERE),
    blend,
  };
}

/** How far a pass lets each tone that enters it through, over tone 0–1; undefined where all are. */
export function reachTable({ zonesOff, gate }: Pass): Float32Array | undefined {
  return shareTable(zonesOff, gate, 1);
}

/** How far a pass acts on a tone, by strength, zones switched off and a gate that reads the entering tone; undefined for 1 everywhere. */
function shareTable(zonesOff: readonly number[], gate: Gate | null, strength: number): Float32Array | undefined {
  const gated = gate && readsEnteringTone(gate) ? gate : undefined;
  if (zonesOff.length === 0 && !gated && strength === 1) return undefined;
  return pairTable(SOFT_KNOTS, (t) => {
    const zone = t * LAST_ZONE;
    return strength * (zonesOff.length ? zonesOnShare(zone, zonesOff) : 1) * (gated ? gateShare(gated, zone) : 1);
  });
}
