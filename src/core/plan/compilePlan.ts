import type { BlendMode } from "../blend/blend";
import { contrastMaskStops } from "../passes/contrast-mask/contrastMask";
import { MOST_CEILING } from "../passes/exposure/exposure";
import { orderedStops, stopsRows, type StopsByTone, type StopsRows } from "../steps/orderedStops";
import { isRepairedOnTheWay, readsEnteringTone, type Gate } from "../gate/gate";
import { pairTable } from "../kernels/pairTable";
import { hueCurve } from "../mix/hueCurve";
import type { Weights } from "../mix/weights";
import type { Region } from "../region/region";
import { gateKey } from "../gate/gateKey";
import { shapeKey, strokesKey } from "../region/shapeKey";
import type { Spread } from "../spatial/toneBase";
import { TONE_KNOTS } from "../zones/toneKnots";
import { LAST_ZONE } from "../zones/zone";
import { blendedRows } from "../steps/blendedRows";
import { passInSet } from "./editPasses";
import { actsOnAll, isTonePass, leavesAll, passCurve, reachOf, stopsByTone, type TonePass } from "./passCurve";
import type { ContrastMaskMove, EdgeBurnMove, ExposureMove, Mix, Pass, Plan } from "./plan";

const HUE_KNOTS = 1440;
/** Knots of tables over the blurred tone and of zones switched off: smooth, so that few do. */
export const SOFT_KNOTS = 640;

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
  /** The same without its gate, where strokes on the gate let tones through that it would not; for what they let through. */
  free: CompiledStep | undefined;
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

/** How the stops given to a place reach its tones. */
export interface StopsThrough {
  /** How much of them reaches a tone, over tone 0–1; absent where all do. */
  share: Float32Array | undefined;
  /** In its stead where that would bring tones out of order: what reaches tones for each amount given. */
  rows: StopsRows | undefined;
}

/** How a blended tone meets what is beneath: how far it comes through over the tone of the place, strength included. */
export interface Blended {
  mode: BlendMode;
  share: Float32Array;
  /** In its stead where that would bring tones out of order: what changes in them for each amount of stops given to the place. */
  rows: StopsRows | undefined;
}

/** A pass's step, with and without its gate. */
interface Steps {
  step: CompiledStep | undefined;
  free: CompiledStep | undefined;
}

/** Stops given to a place by its surroundings. */
export interface SpatialStep {
  kind: "spatial";
  spread: Spread;
  /** Stops over the tone of the surroundings; meeting the print normally, at the pass's strength. */
  stops: Float32Array;
  through: StopsThrough;
  /** Absent where it meets the print normally. */
  blended: Blended | undefined;
}

/** Stops given to places, and by tone. */
export interface ExposureStep {
  kind: "exposure";
  /** What tells the stops of each place: see stopsPlane. */
  move: PlacedStops;
  /** Times those stops, and stops given to every place besides. */
  gain: number;
  flat: number;
  through: StopsThrough;
  /** Stops given by tone besides; absent where none are. */
  byTone: Float32Array | undefined;
  /** Whether less light darkens bare paper too, or leaves it. */
  onPaper: boolean;
  /** Absent where it meets the print normally. */
  blended: Blended | undefined;
}

/** A move that gives stops to places. */
export type PlacedStops = ExposureMove | EdgeBurnMove;

/**
 * Compiles plans, keeping the tables of parts that did not change since the last one:
 * an edit of one pass builds one table.
 */
export function planCompiler(): (plan: Plan) => CompiledPlan {
  let hues: { key: string; table: Float32Array | undefined } = { key: "", table: undefined };
  let steps = new Map<string, Steps>();
  let painted = new Map<string, Steps>();
  return (plan) => {
    const key = hueKey(plan.mix);
    if (key !== hues.key) hues = { key, table: hueTable(plan.mix) };
    const kept = new Map<string, Steps>();
    const paintedNow = new Map<string, Steps>();
    const regions = new Map(plan.regions.map((region) => [region.id, { region, key: regionKey(region) }]));
    const passes = plan.passes.map((own) => {
      const pass = passInSet(plan, own);
      const isMasked = compiledMask(pass, regions) !== undefined;
      const bareKey = `${bareKeyOf(pass)} ${isMasked}`;
      const stepKey = pass.move.kind === "exposure" ? `${bareKey} ${strokesKey(pass.move.strokes)}` : bareKey;
      const made = kept.get(stepKey) ?? steps.get(stepKey) ?? compiled(pass, isMasked, painted.get(bareKey));
      kept.set(stepKey, made);
      const { step, free } = made;
      if (step?.kind === "exposure") paintedNow.set(bareKey, made);
      const mask = step && compiledMask(pass, regions);
      const masked = (key: string) => (mask ? `${key} ${mask.key}` : key);
      return { id: pass.id, step, free, mask, key: masked(stepKey), bareKey: masked(bareKey) };
    });
    steps = kept;
    painted = paintedNow;
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

/** A pass by all it is but strokes that dodge and burn, of which there may be thousands: whether there are any. */
function bareKeyOf({ on, strength, blend, zonesOff, gate, move }: Pass): string {
  const bare = move.kind === "exposure" ? { ...move, strokes: move.strokes.length > 0 } : move;
  return JSON.stringify([on, strength, blend, zonesOff, gate && gateKey(gate), bare]);
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

/** A pass compiled; `alike` is one that differs from it in strokes alone, whose tables serve as well. */
function compiled(pass: Pass, isMasked: boolean, alike: Steps | undefined): Steps {
  const isPainted = pass.move.kind === "exposure" && !leavesAll(pass) && (isMasked || !isTonePass(pass));
  if (alike && isPainted) {
    const withStrokes = (step: CompiledStep | undefined) => step && { ...(step as ExposureStep), move: pass.move as ExposureMove };
    return { step: withStrokes(alike.step), free: withStrokes(alike.free) };
  }
  const { gate } = pass;
  if (!gate || !isRepairedOnTheWay(gate)) return { step: compiledStep(pass, isMasked), free: undefined };
  const gated = { ...pass, gate: { ...gate, repair: [] } };
  return { step: compiledStep(gated, isMasked), free: compiledStep({ ...pass, gate: null }, isMasked) };
}

function compiledStep(pass: Pass, isMasked: boolean): CompiledStep | undefined {
  if (leavesAll(pass)) return undefined;
  // Through a mask exposure is scaled as light: see CORE, "A pass, in one line".
  if (pass.move.kind === "exposure" && (isMasked || !isTonePass(pass))) return exposureStep(pass, pass.move);
  if (pass.move.kind === "edge-burn") return edgeBurnStep(pass, pass.move);
  return isTonePass(pass) ? toneStep(pass) : spatialStep(pass, pass.move as ContrastMaskMove);
}

function exposureStep(pass: Pass, move: ExposureMove): ExposureStep {
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  const flat = gain * move.flat;
  const byTone = stopsByTone(pass, move, isNormal);
  const { added } = orderedStops(SOFT_KNOTS, byTone);
  return {
    kind: "exposure",
    move,
    gain,
    flat,
    onPaper: false,
    through: through(byTone, Math.abs(flat) + gain * mostPainted(move)),
    byTone: byTone.added && pairTable(SOFT_KNOTS, (t) => added[Math.round(t * SOFT_KNOTS)]!),
    blended: blended(pass, byTone, Math.abs(flat) + mostPainted(move)),
  };
}

/** The most stops that painting can give a place, whatever the strokes: so that they change nothing but where they are. */
function mostPainted({ strokes, dodge, burn, limit }: ExposureMove): number {
  if (strokes.length === 0) return 0;
  return limit ?? MOST_CEILING * Math.max(dodge, burn);
}

function edgeBurnStep(pass: Pass, move: EdgeBurnMove): ExposureStep {
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  return {
    kind: "exposure",
    move,
    gain,
    flat: 0,
    byTone: undefined,
    onPaper: move.onPaper,
    through: isNormal ? throughReach(pass, gain * Math.abs(move.stops), move.onPaper) : ALL,
    blended: blended(pass, { ...REACHES_ALL, onPaper: move.onPaper }, Math.abs(move.stops)),
  };
}

/** All stops reach all tones. */
const ALL: StopsThrough = { share: undefined, rows: undefined };
const REACHES_ALL: StopsByTone = { share: () => 1 };

function through(byTone: StopsByTone, most: number): StopsThrough {
  const rows = stopsRows(SOFT_KNOTS, byTone, most);
  return rows ? { share: undefined, rows } : { share: pairTable(SOFT_KNOTS, byTone.share), rows };
}

/** Through a pass's gate and past its zones switched off. */
function throughReach(pass: Pass, most: number, onPaper = false): StopsThrough {
  return actsOnAll(pass) ? ALL : through({ share: (t) => reachOf(pass, t * LAST_ZONE), onPaper }, most);
}

function blended(pass: Pass, byTone: StopsByTone, most: number): Blended | undefined {
  if (pass.blend === "normal") return undefined;
  const share = pairTable(SOFT_KNOTS, (t) => pass.strength * reachOf(pass, t * LAST_ZONE));
  return { mode: pass.blend, share, rows: blendedRows(pass, byTone, SOFT_KNOTS, most) };
}

function toneStep(pass: TonePass): ToneStep {
  const curve = passCurve(pass);
  return { kind: "tone", table: pairTable(TONE_KNOTS, (t) => curve(t * LAST_ZONE) / LAST_ZONE - t) };
}

function spatialStep(pass: Pass, { radius, edges, density }: ContrastMaskMove): SpatialStep {
  const isNormal = pass.blend === "normal";
  const stopsOf = (surrounding: number) => contrastMaskStops(surrounding, isNormal ? pass.strength * density : density);
  const most = Math.max(Math.abs(stopsOf(0)), Math.abs(stopsOf(1)));
  return {
    kind: "spatial",
    spread: { radius, edges },
    stops: pairTable(SOFT_KNOTS, stopsOf),
    through: isNormal ? throughReach(pass, most) : ALL,
    blended: blended(pass, REACHES_ALL, most),
  };
}

/** How far a pass lets each tone that enters it through, over tone 0–1; undefined where all are. */
export function reachTable(pass: Pick<Pass, "gate" | "zonesOff">): Float32Array | undefined {
  return actsOnAll(pass) ? undefined : pairTable(SOFT_KNOTS, (t) => reachOf(pass, t * LAST_ZONE));
}
