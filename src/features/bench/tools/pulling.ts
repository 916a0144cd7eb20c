import { oklchToLinearP3 } from "@/core/colour/oklchToP3";
import { pulledWeights } from "@/core/mix/pullWeights";
import { addHueKnot, hueName, moveHueKnot } from "@/core/mix/hueCurve";
import type { Plan } from "@/core/plan/plan";
import { formatStops } from "@/core/zones/zone";
import type { PointReading } from "@/engine/stage/stageTypes";
import type { BenchStore } from "../state/benchStore";
import { adjustMix, inWhichMix, mixAt, mixInHand, mixPlaceOf, withMixAt } from "../state/mixInHand";
import type { PullTool } from "./tools";
import { pullGate, pullHueLimit } from "../scale/gatePulls";
import { pullTone } from "../passes/placement/pullTone";
import type { Stops } from "@/core/units";

/** CSS pixels of pulling that make one stop. */
const PIXELS_PER_STOP = 60;
/** Chroma below which a spot has no hue to pull. */
const LEAST_CHROMA = 0.01;

/** A spot of the picture under the hand: pulled up it becomes lighter, down darker. */
export interface Puller {
  pull(pixelsUp: number, isFree: boolean): void;
  /** How far it is pulled now. */
  words(plan: Plan): string;
  finish(): void;
}

/** Takes hold of the hue or the tone of a touched spot; what it changes so far cannot be seen. */
export function beginPull(tool: PullTool, touched: PointReading, store: BenchStore): Puller | { refused: string } {
  switch (tool) {
    case "pull-hue":
      return pullHue(touched, store);
    case "pull-weights":
      return pullWeights(touched, store);
    case "pick-tones":
      return pullGate(touched, store);
    case "pick-hue":
      return pullHueLimit(touched, store);
    case "pull-tone":
      return pullTone(touched, store);
  }
}

/** Goes to the mix that is pulled: that of the plan, unless a pass that mixes anew is in hand. */
function takeMix(store: BenchStore): void {
  if (mixPlaceOf(store.getState()) === undefined) store.getState().chooseStep({ stage: "mix" });
}

function pullWeights(touched: PointReading, store: BenchStore): Puller | { refused: string } {
  const colour = oklchToLinearP3(touched);
  const { weights: from } = mixInHand(store.getState());
  if (touched.chroma < LEAST_CHROMA || !pulledWeights(from, colour, 1))
    return { refused: "This spot has no colour to weigh: neutrals keep their tone. Pull its tone instead." };
  takeMix(store);
  let stops = 0;
  const words = () => formatStops(stops);
  return {
    pull(pixelsUp) {
      stops = Math.round((pixelsUp / PIXELS_PER_STOP) * 50) / 50;
      const weights = pulledWeights(from, colour, stops) ?? from;
      adjustMix(store, { weights });
    },
    words,
    finish: () => store.getState().commit(`Weights for ${hueName(touched.hueDeg)} ${words()}`),
  };
}

function pullHue({ hueDeg, chroma }: PointReading, store: BenchStore): Puller | { refused: string } {
  if (chroma < LEAST_CHROMA) return { refused: "This spot has no colour to pull: neutrals keep their tone. Pull its tone instead." };
  const { knots, index } = addHueKnot(mixInHand(store.getState()).hueKnots, hueDeg);
  if (index === undefined) return { refused: "There is no room for another knot. Remove one from the hue line first." };
  const from = knots[index]!.stops;
  const place = mixPlaceOf(store.getState());
  const show = (plan: Plan, stops: Stops): Plan =>
    withMixAt(plan, place, { huesOn: true, hueKnots: moveHueKnot(knots, index, { ...knots[index]!, stops }) });
  store.getState().adjust((plan) => show(plan, from));
  takeMix(store);
  store.getState().set({ chosenKnot: index });
  const words = (plan: Plan) => formatStops(mixAt(plan, place).hueKnots[index]?.stops ?? 0);
  return {
    pull: (pixelsUp) => store.getState().adjust((plan) => show(plan, Math.round((from + pixelsUp / PIXELS_PER_STOP) * 50) / 50)),
    words,
    finish: () => store.getState().commit(`${hueName(hueDeg)} ${words(store.getState().plan)} ${inWhichMix(store.getState())}`),
  };
}
