import { oklchToLinearP3 } from "@/core/colour/oklchToP3";
import { gateBeforeMix, openGate, toneRead, type Gate } from "@/core/gate/gate";
import { hueName } from "@/core/mix/hueCurve";
import { actsOnColour } from "@/core/passes/passKinds";
import type { Plan } from "@/core/plan/plan";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import type { PointReading } from "@/engine/stage/stageTypes";
import { confinedById, withGate } from "@/core/plan/editRegions";
import type { BenchState, BenchStore } from "../state/benchStore";
import { confinedInHand, activeOf } from "../state/inPlan";
import type { Puller } from "../tools/pulling";
import { snapZone } from "./snapZone";

/** CSS pixels of pulling that widen a gate by one zone to either side, and a hue limit by ten degrees. */
const PIXELS_PER_ZONE = 60;
const PIXELS_PER_TEN_DEGREES = 20;
/** A gate begins this wide to either side, shoulders apart. */
const FIRST_REACH = 0.5;
const FIRST_HUE_REACH = 25;
/** Chroma below which a spot has no hue. */
const LEAST_CHROMA = 0.01;

/**
 * Something without a gate is given one that reads the tone entering it; a set, whose passes are entered by different ones, one that reads
 * the mix.
 */
export function firstGate(isSet: boolean): Gate {
  return { ...openGate(), source: isSet ? "mixed" : "entering" };
}

/** Whether what is in hand comes before the mix. */
function isBeforeMix(state: Pick<BenchState, "plan" | "step">): boolean {
  const hand = activeOf(state);
  return !!hand && state.plan.passes.slice(hand.first, hand.end).some(({ move }) => actsOnColour(move));
}

/** Takes the touched tone, as the gate reads it, as its middle; pulling up widens it. */
export function pullGate(touched: PointReading, store: BenchStore): Puller | { refused: string } {
  const state = store.getState();
  const thing = confinedInHand(state);
  if (!thing) return { refused: "A gate belongs to a pass. Choose one on the ribbon, or add one." };
  const before = thing.gate ?? { ...firstGate(state.step.stage === "set"), low: 2, high: 2 };
  const read = isBeforeMix(state) ? gateBeforeMix(before) : before;
  const middle = snapZone(toneRead(read, { ...touched, colour: oklchToLinearP3(touched) }) * LAST_ZONE);
  const show = (reach: number) => {
    const gate = { ...before, from: Math.max(middle - reach, 0), to: Math.min(middle + reach, LAST_ZONE) };
    store.getState().adjust((plan) => withGate(plan, thing.id, gate));
  };
  show(FIRST_REACH);
  const words = (plan: Plan) => {
    const gate = confinedById(plan, thing.id)?.gate;
    return gate ? `${formatZone(gate.from)} to ${formatZone(gate.to)}` : "";
  };
  return {
    pull: (pixelsUp) => show(Math.max(FIRST_REACH + pixelsUp / PIXELS_PER_ZONE, 0)),
    words,
    finish: () => store.getState().commit(`Gate ${words(store.getState().plan)} in ${thing.name}`),
  };
}

/** Limits the gate to the touched hue; pulling up widens the limit. */
export function pullHueLimit({ hueDeg, chroma }: PointReading, store: BenchStore): Puller | { refused: string } {
  const state = store.getState();
  const thing = confinedInHand(state);
  if (!thing) return { refused: "A gate belongs to a pass. Choose one on the ribbon, or add one." };
  if (chroma < LEAST_CHROMA) return { refused: "This spot has no colour to limit the gate to. Touch one that has." };
  const before = thing.gate ?? firstGate(state.step.stage === "set");
  const show = (widthDeg: number) => {
    const hue = { centreDeg: hueDeg, widthDeg, shoulderDeg: 25, invert: before.hue?.invert ?? false };
    store.getState().adjust((plan) => withGate(plan, thing.id, { ...before, hue }));
  };
  show(FIRST_HUE_REACH);
  return {
    pull: (pixelsUp) => show(Math.min(Math.max(FIRST_HUE_REACH + (10 * pixelsUp) / PIXELS_PER_TEN_DEGREES, 2), 150)),
    words: () => hueName(hueDeg),
    finish: () => store.getState().commit(`Only ${hueName(hueDeg)} in ${thing.name}`),
  };
}
