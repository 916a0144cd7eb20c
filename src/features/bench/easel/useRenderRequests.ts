import type { LevelArea } from "@/engine/source/levelFetcher";
import { useEffect, useRef, type RefObject } from "react";
import { WHOLE_FRAME } from "@/core/frame/frame";
import type { Size } from "@/core/spatial/areaReduce";
import { useBench } from "../state/BenchContext";
import { comparedPlan, planUpTo, planWithoutMask } from "../state/comparedPlan";
import { activeOf, seenPlan } from "../state/inPlan";

const COLOUR = { kind: "colour" } as const;

/** Asks for a frame whenever what is to be seen changes. */
export function useRenderRequests(easel: RefObject<HTMLElement | null>, detail: LevelArea | undefined, shownSize: Size): void {
  const { store, engine } = useBench();
  const latest = useRef({ detail, shownSize });
  const key = JSON.stringify([detail, shownSize]);
  useEffect(() => {
    latest.current = { detail, shownSize };
    const ask = () => {
      const state = store.getState();
      const { step, screens, pins, before, isUpToHere } = state;
      const wished = seenPlan(state);
      const plan = state.isMaskIgnored ? planWithoutMask(wished, step) : wished;
      const seen = before ? comparedPlan(plan, step, before) : isUpToHere ? planUpTo(plan, step) : plan;
      const active = before ? undefined : activeOf({ plan: wished, step });
      const asked = engine()?.render({
        plan: seen,
        shownFrame: step.stage === "frame" ? WHOLE_FRAME : seen.frame,
        active,
        look: before === "source" ? COLOUR : state.look,
        screens,
        pins,
        ...latest.current,
        isPeek: before !== undefined || state.isMaskIgnored,
      });
      if (asked !== undefined && easel.current) easel.current.dataset.asked = String(asked); // equal to the frame drawn: nothing is under way
    };
    ask();
    return store.subscribe((state, old) => {
      if (
        seenPlan(state) !== seenPlan(old) ||
        state.step !== old.step ||
        state.look !== old.look ||
        state.before !== old.before ||
        state.isMaskIgnored !== old.isMaskIgnored ||
        state.isUpToHere !== old.isUpToHere ||
        state.screens !== old.screens ||
        state.pins !== old.pins ||
        state.isReady !== old.isReady
      )
        ask();
    });
    // The area is compared by value.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [store, engine, easel, key]);
}
