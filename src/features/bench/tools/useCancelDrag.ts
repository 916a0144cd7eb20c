import { useEffect } from "react";
import type { Plan } from "@/core/plan/plan";
import type { BenchStore } from "../state/benchStore";

/**
 * Escape while a button is held takes back what the drag changed, as if it had not begun: the plan is as it was at the press, and what the hand
 * still does until it lets go changes nothing. For all that is dragged, wherever it lies.
 */
export function useCancelDrag(store: BenchStore): void {
  useEffect(() => {
    let pressed: Plan | undefined;
    const onDown = () => (pressed ??= store.getState().plan);
    const onKey = (event: KeyboardEvent) => {
      const { plan, planAtPress, cancelDrag } = store.getState();
      // What is drawn on the picture is let go of by the hand that draws it.
      if (event.key !== "Escape" || !pressed || pressed === plan || planAtPress) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      cancelDrag(pressed);
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
