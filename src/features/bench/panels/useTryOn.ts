import { useCallback, useEffect } from "react";
import type { Plan } from "@/core/plan/plan";
import { useBench } from "../state/BenchContext";

/**
 * Tries something on the whole print while it is pointed at; the plan itself, and with it the panel, stays as it is until something is
 * taken.
 * `put` puts one in its place in a plan.
 */
export function useTryOn<T>(put: (plan: Plan, value: T) => Plan) {
  const { store } = useBench();
  const stop = useCallback(() => store.getState().set({ tried: undefined }), [store]);
  useEffect(() => stop, [stop]);
  const tryOut = (value: T) => store.getState().set({ tried: put(store.getState().plan, value) });
  /** Takes one, as a step of the history. */
  const take = (value: T, label: string) => {
    store.getState().adjust((plan) => put(plan, value));
    store.getState().commit(label);
  };
  /** For what shows one of them. */
  const handlers = (value: T) => ({
    onPointerEnter: () => tryOut(value),
    onPointerLeave: stop,
    onFocus: () => tryOut(value),
    onBlur: stop,
  });
  return { handlers, take };
}
