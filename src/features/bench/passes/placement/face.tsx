import { placementCurve } from "@/core/passes/placement/placementCurve";
import { addStrand, isHold } from "@/core/passes/placement/strand";
import { formatZone } from "@/core/zones/zone";
import { withMove } from "../../state/inPlan";
import type { PassFace } from "../passFace";
import { PlacementPart } from "./PlacementPart";
import { Strands } from "./Strands";

export const placement: PassFace<"placement"> = {
  name: "Placement",
  purpose: "Move zones to other zones, hold others",
  words({ strands }) {
    const moved = strands.filter((strand) => !isHold(strand));
    const furthest = moved.toSorted((a, b) => Math.abs(b.to - b.from) - Math.abs(a.to - a.from))[0];
    return furthest ? `${formatZone(furthest.from)} → ${formatZone(furthest.to)}` : "Placement";
  },
  Panel: ({ pass, move }) => <PlacementPart key={pass.id} pass={pass} move={move} />,
  OnScale: ({ pass, move, x, zoneAt }) => <Strands strands={move.strands} x={x} zoneAt={zoneAt} passId={pass.id} passName={pass.name} />,
  pressScale(store, { pass, move: { strands } }, from) {
    const joined = addStrand(strands, { from, to: placementCurve(strands)(from) });
    if (!joined) return;
    store.getState().set({ look: { kind: "picture" }, before: undefined });
    store.getState().adjust((now) => withMove(now, pass.id, { kind: "placement", strands: joined }));
    store.getState().set({ chosenStrands: [joined.findIndex((strand) => strand.from === from)] });
    store.getState().commit(`A strand at ${formatZone(from)} in ${pass.name}`);
  },
};
