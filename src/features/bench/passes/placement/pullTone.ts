import { placementCurve } from "@/core/passes/placement/placementCurve";
import { addStrand, moveStrand } from "@/core/passes/placement/strand";
import type { Plan } from "@/core/plan/plan";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import type { PointReading } from "@/engine/stage/stageTypes";
import type { BenchStore } from "../../state/benchStore";
import { chosenPass, withMove } from "../../state/inPlan";
import type { Puller } from "../../tools/pulling";
import { snapZone } from "../../scale/snapZone";

/** CSS pixels of pulling that make one zone. */
const PIXELS_PER_ZONE = 60;
/** A strand this near the touched tone is the one that is pulled, in zones. */
const TAKEN_WITHIN = 0.3;

/** Takes hold of the tone of a touched spot: a strand of the placement in hand, or a new one there. */
export function pullTone({ entering }: PointReading, store: BenchStore): Puller | { refused: string } {
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
