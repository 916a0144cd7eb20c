import { addHueKnot, hueName, moveHueKnot } from "@/core/mix/hueCurve";
import { placementCurve } from "@/core/passes/placement/placementCurve";
import { addStrand, moveStrand } from "@/core/passes/placement/strand";
import type { Plan } from "@/core/plan/plan";
import { formatStops, formatZone, LAST_ZONE } from "@/core/zones/zone";
import type { PointReading } from "@/engine/stageTypes";
import { chosenPass, withMove, type BenchStore, type Tool } from "./benchStore";
import { pullGate, pullHueLimit } from "./gatePulls";
import { snapZone } from "./snapZone";

/** CSS pixels of pulling that make one stop, and one zone. */
const PIXELS_PER_STOP = 60;
const PIXELS_PER_ZONE = 60;
/** A strand this near the touched tone is the one that is pulled, in zones. */
const TAKEN_WITHIN = 0.3;
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
export function beginPull(tool: Tool, touched: PointReading, store: BenchStore): Puller | { refused: string } {
  switch (tool) {
    case "pull-hue":
      return pullHue(touched, store);
    case "pick-tones":
      return pullGate(touched, store);
    case "pick-hue":
      return pullHueLimit(touched, store);
    default:
      return pullTone(touched, store);
  }
}

function pullHue({ hueDeg, chroma }: PointReading, store: BenchStore): Puller | { refused: string } {
  if (chroma < LEAST_CHROMA) return { refused: "This spot has no colour to pull: neutrals keep their tone. Pull its tone instead." };
  const { knots, index } = addHueKnot(store.getState().plan.mix.hueKnots, hueDeg);
  if (index === undefined) return { refused: "There is no room for another knot. Remove one from the hue line first." };
  const from = knots[index]!.stops;
  const show = (plan: Plan, stops: number): Plan => {
    const moved = moveHueKnot(knots, index, { ...knots[index]!, stops });
    return { ...plan, mix: { ...plan.mix, huesOn: true, hueKnots: moved } };
  };
  store.getState().adjust((plan) => show(plan, from));
  store.getState().set({ chosenKnot: index, step: { stage: "mix" } });
  const words = (plan: Plan) => formatStops(plan.mix.hueKnots[index]?.stops ?? 0);
  return {
    pull: (pixelsUp) => store.getState().adjust((plan) => show(plan, Math.round((from + pixelsUp / PIXELS_PER_STOP) * 50) / 50)),
    words,
    finish: () => store.getState().commit(`${hueName(hueDeg)} ${words(store.getState().plan)} in the mix`),
  };
}

function pullTone({ entering }: PointReading, store: BenchStore): Puller | { refused: string } {
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "placement") return { refused: "Tones are pulled in a placement pass. Choose one on the ribbon, or add one." };
  const { strands } = pass.move;
  const zone = entering * LAST_ZONE;
  const near = strands.findIndex(({ from }) => Math.abs(from - zone) < TAKEN_WITHIN);
  const from = snapZone(zone);
  const joined = near >= 0 ? strands : addStrand(strands, { from, to: placementCurve(strands)(from) });
  if (!joined) return { refused: "Another strand stands too close to this tone." };
  const index = near >= 0 ? near : joined.findIndex((strand) => strand.from === from);
  const start = joined[index]!;
  const show = (to: number) => (plan: Plan) =>
    withMove(plan, pass.id, { kind: "placement", strands: moveStrand(joined, index, { ...start, to }) });
  store.getState().adjust(show(start.to));
  store.getState().set({ chosenStrands: [index] });
  const words = (plan: Plan) => {
    const move = plan.passes.find(({ id }) => id === pass.id)?.move;
    return `${formatZone(start.from)} → ${formatZone(move?.kind === "placement" ? move.strands[index]!.to : start.to)}`;
  };
  return {
    pull: (pixelsUp, isFree) => {
      const to = start.to + pixelsUp / PIXELS_PER_ZONE;
      store.getState().adjust(show(isFree ? to : snapZone(to)));
    },
    words,
    finish: () => store.getState().commit(`${words(store.getState().plan).replace("→", "to")} in ${pass.name}`),
  };
}
