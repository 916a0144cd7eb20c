import { useEffect, useState } from "react";
import type { Plan } from "@/core/plan/plan";
import { useBench } from "../state/BenchContext";
import { settledPlan } from "../state/benchStore";

/** How far apart what a hand moves is shown. */
const EVERY_MS = 200;

/** The plan for what need not follow every move of a hand: each step of its history is there at once, what lies between a few times a second. */
export function useCalmPlan(): Plan {
  const { store } = useBench();
  const [plan, setPlan] = useState(() => settledPlan(store.getState()));
  useEffect(() => {
    let shown: { plan: Plan; head: string; at: number } | undefined;
    let later: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      clearTimeout(later);
      later = undefined;
      const state = store.getState();
      shown = { plan: settledPlan(state), head: state.history.head, at: performance.now() };
      setPlan(shown.plan);
    };
    const follow = () => {
      const state = store.getState();
      if (shown && settledPlan(state) === shown.plan) return;
      const wait = shown && state.history.head === shown.head ? shown.at + EVERY_MS - performance.now() : 0;
      if (wait <= 0) show();
      else later ??= setTimeout(show, wait);
    };
    follow();
    const stop = store.subscribe(follow);
    return () => {
      stop();
      clearTimeout(later);
    };
  }, [store]);
  return plan;
}
