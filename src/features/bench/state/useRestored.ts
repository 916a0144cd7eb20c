import { useEffect } from "react";
import { z } from "zod";
import type { createBenchStore, Step } from "./benchStore";
import { keptStep } from "./inHand";

const StepSchema: z.ZodType<Step> = z.union([
  z.strictObject({ stage: z.enum(["frame", "spots", "colour", "mix", "finish"]) }),
  z.strictObject({ stage: z.enum(["pass", "set"]), id: z.string() }),
]);

/**
 * Puts back what a reload would have lost: work that was not sent yet, then the step that was in hand, as long as the plan has it. The step
 * is remembered for this window and this print.
 */
export function useRestored(store: ReturnType<typeof createBenchStore>, printId: string): void {
  useEffect(() => {
    const name = `nigrographe.step.${printId}`;
    const first = store.getState().step;
    let isOver = false;
    let stop = () => {};
    void store.restore().then(() => {
      if (isOver) return;
      const step = read(name);
      const { plan, step: now, chooseStep } = store.getState();
      // Whoever was quicker has chosen otherwise.
      if (step && now === first && keptStep(step, plan) === step) chooseStep(step);
      stop = store.subscribe((state, old) => state.step !== old.step && write(name, state.step));
    });
    return () => {
      isOver = true;
      stop();
    };
  }, [store, printId]);
}

function read(name: string): Step | undefined {
  try {
    return StepSchema.safeParse(JSON.parse(sessionStorage.getItem(name) ?? "null")).data;
  } catch {
    return undefined;
  }
}

function write(name: string, step: Step): void {
  try {
    sessionStorage.setItem(name, JSON.stringify(step));
  } catch {
    // A browser that keeps nothing.
  }
}
