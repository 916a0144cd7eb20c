import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { useRef, type PointerEvent } from "react";
import { liftableZone } from "@/core/passes/placement/liftZone";
import { moveStrand, type Strand } from "@/core/passes/placement/strand";
import { formatZone } from "@/core/zones/zone";
import { useBench } from "../../state/BenchContext";
import { useSteady } from "@/features/shared/useSteady";
import { withMove } from "../../state/inPlan";
import { snapZone } from "../../scale/snapZone";
import type { Zone } from "@/core/units";

/** A zone pulled along the lower rail of a placement is lifted or lowered alone, its neighbours held. */
export function useZoneLift(pass: Pass | undefined, zoneAt: (event: { clientX: number }) => number) {
  const { store } = useBench();
  const lift = useRef<{ zone: Zone; at: number; strands: Strand[]; index: number } | undefined>(undefined);
  const onPress = (event: PointerEvent, zone: Zone) => {
    const found = pass?.move.kind === "placement" && event.button === 0 ? liftableZone(pass.move.strands, zone) : undefined;
    if (!found) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    lift.current = { zone, at: zoneAt(event), ...found };
  };
  const onPull = (event: PointerEvent) => {
    if (!lift.current || !pass) return;
    const { zone, at, strands: held, index } = lift.current;
    const by = zoneAt(event) - at;
    const to = event.altKey ? zone + by : snapZone(zone + by);
    const move: Move = { kind: "placement", strands: moveStrand(held, index, { ...held[index]!, to }) };
    store.getState().set({ look: { kind: "picture" }, before: undefined, chosenStrands: [index] });
    store.getState().adjust((now) => withMove(now, pass.id, move));
  };
  const onRelease = () => {
    const lifted = lift.current;
    lift.current = undefined;
    const move = store.getState().plan.passes.find(({ id }) => id === pass?.id)?.move;
    if (!lifted || !pass || move?.kind !== "placement") return;
    const reached = move.strands[lifted.index]?.to ?? lifted.zone;
    store
      .getState()
      .commit(`Zone ${formatZone(lifted.zone)} ${reached < lifted.zone ? "lowered" : "lifted"} to ${formatZone(reached)} in ${pass.name}`);
  };
  return { onPress: useSteady(onPress), onPull: useSteady(onPull), onRelease: useSteady(onRelease) };
}
