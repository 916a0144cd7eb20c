import { useCallback, useEffect, useRef } from "react";
import type { Plan } from "@/core/plan/plan";
import { useBench } from "../state/BenchContext";

/**
 * Tries something on the whole print while it is pointed at. `read` tells the part of the plan that is changed, `put` puts one in its place; both stay the same over renders.
 */
export function useTryOn<T>(read: (plan: Plan) => T, put: (plan: Plan, value: T) => Plan) {
  const { store } = useBench();
  /** What is gone back to, while another is tried. */
  const own = useRef<{ value: T }>(undefined);
  const putBack = useCallback(() => {
    const kept = own.current;
    if (kept) store.getState().adjust((plan) => put(plan, kept.value));
    own.current = undefined;
  }, [store, put]);
  useEffect(() => putBack, [putBack]);
  const tryOut = (value: T) => {
    own.current ??= { value: read(store.getState().plan) };
    store.getState().adjust((plan) => put(plan, value));
  };
  /** Takes one, as a step of the history. */
  const take = (value: T, label: string) => {
    own.current = undefined;
    store.getState().adjust((plan) => put(plan, value));
    store.getState().commit(label);
  };
  /** For what shows one of them. */
  const handlers = (value: T) => ({
    onPointerEnter: () => tryOut(value),
    onPointerLeave: putBack,
    onFocus: () => tryOut(value),
    onBlur: putBack,
  });
  return { handlers, take };
}
