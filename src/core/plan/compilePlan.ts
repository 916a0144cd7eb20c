import type { Confined, Pass } from "../passes/pass";
import { strokesKey } from "../brush/strokesKey";
import { frameKey, type Frame } from "../frame/frame";
import { gateBeforeMix, isRepairedOnTheWay, readsColour, readsEnteringTone, type Gate } from "../gate/gate";
import { gateKey } from "../gate/gateKey";
import { hueTableOf, partsColours, weightsAt } from "../mix/mixLook";
import { LUMINANCE_WEIGHTS, type Weights } from "../mix/weights";
import { actsOnColour, colourStepOf, leavesAll, placedStops, stepOf, strokesOfMove, withMoveStrokes } from "../passes/passKinds";
import type { Region } from "../region/region";
import { shapeKey } from "../region/shapeKey";
import type { ColourStep } from "../steps/colourStep";
import { readsColours, type Step } from "../steps/step";
import { spotKey, type Spot } from "../spots/spot";
import { reachTable } from "../steps/reach";
import { passInSet, placeOfSet } from "./editPasses";
import type { Mix, PassSet, Plan } from "./plan";

/** A plan as the kernels take it. Steps that change nothing are left out. */
export interface CompiledPlan {
  frame: Frame;
  spots: readonly Spot[];
  /** Equal keys cover the same of the picture. */
  spotsKey: string;
  /** How far the colour that is mixed is the cleaned one, 0–1; 0 where nothing reads colour. */
  clean: number;
  /** What is done to colour before it is mixed, in order. */
  colour: CompiledColour[];
  /** Equal keys do the same to colour. */
  colourKey: string;
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
  step: Step | undefined;
  /** The same without its gate, where strokes on the gate let tones through that it would not; for what they let through. */
  free: Step | undefined;
  /** Where and how far it acts, beyond what the step itself tells by tone; absent where it acts everywhere. */
  mask: CompiledMask | undefined;
  /** Equal keys give equal steps and masks. */
  key: string;
  /** The same but for strokes that dodge and burn: passes with equal ones differ by these alone. */
  bareKey: string;
}

/** A pass that acts on colour. */
export interface CompiledColour {
  /** Its place among the passes of the plan. */
  at: number;
  step: ColourStep;
  strength: number;
  /** Absent where it acts everywhere. */
  mask: CompiledMask | undefined;
  key: string;
}

/** Where a pass acts. */
export interface CompiledMask {
  region: Region | undefined;
  /** What is left of the gate once the step has taken its share. */
  gate: Gate | undefined;
  /** The mask of its set, within which it acts; absent where that has none. */
  within?: CompiledMask | undefined;
  /** Equal keys give equal masks on the same picture and mix. */
  key: string;
}

/** A pass's step, with and without its gate. */
interface Steps {
  colour: ColourStep | undefined;
  step: Step | undefined;
  free: Step | undefined;
}

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
    if (key !== hues.key) hues = { key, table: hueTableOf(plan.mix, plan.mix.strength) };
    const kept = new Map<string, Steps>();
    const paintedNow = new Map<string, Steps>();
    const regions = keyedRegions(plan);
    const colour: CompiledColour[] = [];
    let masksReadColour = false;
    const passes = plan.passes.map((own, at) => {
      const pass = passInSet(plan, own);
      const mask = compiledMask(pass, regions, setOf(plan, own));
      masksReadColour ||= maskReadsColour(mask);
      const isMasked = mask !== undefined;
      const frame = placedStops(pass.move)?.by === "borders" ? frameKey(plan.frame) : "";
      const bareKey = `${bareKeyOf(pass)} ${isMasked} ${frame}`;
      const strokes = strokesOfMove(pass.move);
      const stepKey = strokes ? `${bareKey} ${strokesKey(strokes)}` : bareKey;
      const made = kept.get(stepKey) ?? steps.get(stepKey) ?? compiled(pass, isMasked, painted.get(bareKey));
      kept.set(stepKey, made);
      const { step, free } = made;
      if (strokes && step?.kind === "stops") paintedNow.set(bareKey, made);
      if (made.colour) colour.push({ at, step: made.colour, strength: pass.strength, mask, key: `${stepKey} ${mask?.key ?? ""}` });
      const toneMask = step && mask;
      const masked = (key: string) => (toneMask ? `${key} ${toneMask.key}` : key);
      return { id: pass.id, step, free, mask: toneMask, key: masked(stepKey), bareKey: masked(bareKey) };
    });
    steps = kept;
    painted = paintedNow;
    const weights = plan.mix.weightsOn ? weightsAt(plan.mix.weights, plan.mix.strength) : LUMINANCE_WEIGHTS;
    const readColours = partsColours({ weights, hueTable: hues.table }) || passes.some(({ step }) => step && readsColours(step));
    const clean = readColours || colour.length > 0 || masksReadColour ? plan.mix.clean : 0;
    const colourKey = keyOf(colour);
    const { frame, spots } = plan;
    const spotsKey = spots.map(spotKey).join("; ");
    return { frame, spots, spotsKey, clean, colour, colourKey, weights, hueTable: hues.table, hueKey: key, passes };
  };
}

const keyOf = (colour: readonly CompiledColour[]) => colour.map(({ key }) => key).join("; ");

/** A compiled plan with only the passes before a place. */
export function compiledBefore(plan: CompiledPlan, end: number): CompiledPlan {
  const colour = plan.colour.filter(({ at }) => at < end);
  const colourKey = colour.length === plan.colour.length ? plan.colourKey : keyOf(colour);
  return { ...plan, colour, colourKey, passes: plan.passes.slice(0, end) };
}

/** Compiles one plan. */
export function compilePlan(plan: Plan): CompiledPlan {
  return planCompiler()(plan);
}

function hueKey(mix: Mix): string {
  return JSON.stringify([mix.huesOn, mix.hueKnots, mix.strength]);
}

/** A pass by all it is but strokes that dodge and burn, of which there may be thousands: whether there are any. */
function bareKeyOf({ on, strength, blend, zonesOff, gate, move }: Pass): string {
  const bare = withMoveStrokes(move, (strokes) => strokes.length > 0);
  return JSON.stringify([on, strength, blend, zonesOff, gate && gateKey(gate), bare]);
}

/** Equal keys, equal regions; names do not change where a region lies. */
export function regionKey({ shapes, soften, fit, invert, density }: Region): string {
  return `${shapes.map(shapeKey).join(" ")} ${soften} ${fit} ${invert} ${density}`;
}

/** The mask of one pass of a plan, whether it does anything or not; undefined where it acts everywhere. */
export function maskOf(plan: Plan, pass: Pass): CompiledMask | undefined {
  return compiledMask(pass, keyedRegions(plan), setOf(plan, pass));
}

/**
 * Whether a mask, or that of its set, looks at more of the picture's colour than its light: at cleaned colour then, where its plan cleans.
 */
export function maskReadsColour(mask: CompiledMask | undefined): boolean {
  if (!mask) return false;
  const { region, gate, within } = mask;
  return (!!gate && readsColour(gate)) || !!region?.shapes.some(({ kind }) => kind === "likeness") || maskReadsColour(within);
}

/**
 * The same, with the tones that enter it let through by it as far as its own curve would; and whether it sees the picture before the mix.
 */
export function shownMaskOf(plan: Plan, pass: Pass) {
  const beforeMix = actsOnColour(pass.move);
  return { mask: maskOf(plan, pass), reach: beforeMix ? undefined : reachTable(pass), beforeMix };
}

/** The mask that all passes of a set act through; with it, whether they see the picture before the mix. */
export function shownMaskOfSet(plan: Plan, set: PassSet) {
  const beforeMix = plan.passes.some((pass) => pass.set === set.id && actsOnColour(pass.move));
  return { mask: confinedMask(set, beforeMix, keyedRegions(plan), undefined), reach: undefined, beforeMix };
}

/** The mask of a pass or a set by its id, and the place of the first pass it is of; undefined where the plan has neither. */
export function shownMaskById(plan: Plan, id: string) {
  const at = plan.passes.findIndex((pass) => pass.id === id);
  if (at >= 0) return { at, shown: shownMaskOf(plan, plan.passes[at]!) };
  const set = plan.sets.find((other) => other.id === id);
  return set && { at: placeOfSet(plan, id).first, shown: shownMaskOfSet(plan, set) };
}

function setOf({ sets }: Pick<Plan, "sets">, pass: Pass): PassSet | undefined {
  return pass.set === null ? undefined : sets.find(({ id }) => id === pass.set);
}

type KeyedRegions = ReadonlyMap<string, { region: Region; key: string }>;

function keyedRegions({ regions }: Pick<Plan, "regions">): KeyedRegions {
  return new Map(regions.map((region) => [region.id, { region, key: regionKey(region) }]));
}

function compiledMask(pass: Pass, regions: KeyedRegions, set: PassSet | undefined): CompiledMask | undefined {
  const beforeMix = actsOnColour(pass.move);
  return confinedMask(pass, beforeMix, regions, set && confinedMask(set, beforeMix, regions, undefined));
}

function confinedMask(
  { region, gate: whole }: Confined,
  beforeMix: boolean,
  regions: KeyedRegions,
  within: CompiledMask | undefined,
): CompiledMask | undefined {
  const known = region === null ? undefined : regions.get(region);
  const own = whole && (beforeMix ? gateBeforeMix(whole) : whole);
  const gate = own && isLeft(own) ? own : undefined;
  if (!known && !gate) return within;
  return {
    region: known?.region,
    gate,
    within,
    key: `${known?.key ?? ""} ${gate ? gateKey(gate) : ""}${within ? ` within ${within.key}` : ""}`,
  };
}

/** Whether a gate does more than the step's curve does already. */
function isLeft(gate: Gate): boolean {
  return !readsEnteringTone(gate) || gate.hue !== null;
}

/** A pass compiled; `alike` is one that differs from it in strokes alone, whose tables serve as well. */
function compiled(pass: Pass, isMasked: boolean, alike: Steps | undefined): Steps {
  const colour = colourStepOf(pass);
  if (colour) return { colour, step: undefined, free: undefined };
  const placed = placedStops(pass.move);
  if (alike && placed && !leavesAll(pass)) {
    const withStrokes = (step: Step | undefined) => (step?.kind === "stops" ? { ...step, placed } : step);
    return { colour, step: withStrokes(alike.step), free: withStrokes(alike.free) };
  }
  const { gate } = pass;
  if (!gate || !isRepairedOnTheWay(gate)) return { colour, step: stepOf(pass, isMasked), free: undefined };
  const gated = { ...pass, gate: { ...gate, repair: [] } };
  return { colour, step: stepOf(gated, isMasked), free: stepOf({ ...pass, gate: null }, isMasked) };
}
