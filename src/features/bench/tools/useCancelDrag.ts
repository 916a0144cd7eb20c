import { useEffect } from "react";
import type { Plan } from "@/core/plan/plan";
import type { BenchStore } from "../state/benchStore";

/**
 * Escape while a button is held takes back what the drag changed, as if it had not begun: the plan is as it was at the press, and what the
 * hand still does until it lets go changes nothing. For all that is dragged, wherever it lies.
 */
export function useCancelDrag(store: BenchStore): void {
  useEffect(() => {
    let pressed: { plan: Plan; head: string } | undefined;
    const onDown = ({ isPrimary }: PointerEvent) => {
      if (!isPrimary) return;
      const { plan, history, endDrag } = store.getState();
      endDrag();
      pressed = { plan, head: history.head };
    };
    const onKey = (event: KeyboardEvent) => {
      const { plan, planAtPress, history, cancelDrag } = store.getState();
      // What is drawn on the picture is let go of by the hand that draws it. What became a step since is no drag: a release outside the
      // window is not told.
      if (event.key !== "Escape" || !pressed || pressed.plan === plan || pressed.head !== history.head || planAtPress) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      cancelDrag(pressed.plan);
    };
    const onUp = () => {
      pressed = undefined;
      // What let go is told first: it makes no step of a plan that is as it was.
      setTimeout(() => store.getState().endDrag());
    };
    window.addEventListener("pointerdown", onDown, true);
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("pointerup", onUp, true);
    window.addEventListener("pointercancel", onUp, true);
    return () => {
      window.removeEventListener("pointerdown", onDown, true);
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("pointerup", onUp, true);
      window.removeEventListener("pointercancel", onUp, true);
    };
  }, [store]);
}
