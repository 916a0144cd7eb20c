import { useEffect } from "react";
import type { BenchLook } from "@/engine/messages";
import { chosenPass, chosenSet, handOf, withPass, withSet, type BenchStore, type Step } from "./benchStore";

/** The bench's keys, wherever the focus is, except while something is typed. */
export function useBenchKeys(store: BenchStore, onHelp: () => void): void {
  useEffect(() => {
    const onDown = (event: KeyboardEvent) => {
      if (isTyping(event.target as HTMLElement)) return;
      const state = store.getState();
      if (event.ctrlKey || event.metaKey) {
        const key = event.key.toLowerCase();
        if (key !== "z" && key !== "y") return;
        event.preventDefault();
        void (key === "y" || event.shiftKey ? state.redo() : state.undo());
        return;
      }
      if (event.altKey || event.repeat) return;
      const act = actions(store, onHelp)[event.key.toLowerCase()];
      if (act) act();
      else if (/^[0-9]$/.test(event.key)) state.set({ look: zoneLook(state.look, Number(event.key)) });
    };
    const onUp = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === "q") store.getState().set({ isBefore: false });
    };
    const onBlur = () => store.getState().set({ isBefore: false });
    window.addEventListener("keydown", onDown);
    window.addEventListener("keyup", onUp);
    window.addEventListener("blur", onBlur);
    return () => {
      window.removeEventListener("keydown", onDown);
      window.removeEventListener("keyup", onUp);
      window.removeEventListener("blur", onBlur);
    };
  }, [store, onHelp]);
}

function actions(store: BenchStore, onHelp: () => void): Record<string, () => void> {
  const state = store.getState();
  const toggle = (kind: "stepped" | "colour" | "change") => () =>
    state.set({ look: { kind: state.look.kind === kind ? "picture" : kind } });
  return {
    t: () => state.set({ look: zoneLook(state.look, 10) }),
    escape: () => state.set({ look: { kind: "picture" } }),
    s: toggle("stepped"),
    c: toggle("colour"),
    x: toggle("change"),
    u: () => state.set({ isUpToHere: !state.isUpToHere }),
    v: () => state.set({ screens: !state.screens }),
    q: () => state.set({ isBefore: true }),
    r: () => state.set({ tool: "read" }),
    h: () => state.set({ tool: "pull-hue" }),
    l: () => state.set({ tool: "pull-tone" }),
    m: () => state.set({ tool: "move" }),
    i: () => state.set({ tool: "pin" }),
    n: () => stepBy(store, 1),
    p: () => stepBy(store, -1),
    o: () => switchOver(store),
    "?": onHelp,
  };
}

/** Switches the pass or set in hand on or off. */
function switchOver(store: BenchStore): void {
  const state = store.getState();
  const set = chosenSet(state);
  const thing = set ?? chosenPass(state)?.pass;
  if (!thing) return;
  const { id, name, on } = thing;
  state.adjust((plan) => (set ? withSet(plan, id, { on: !on }) : withPass(plan, id, (pass) => ({ ...pass, on: !on }))));
  state.commit(`${name} ${on ? "off" : "on"}`);
}

function zoneLook(look: BenchLook, zone: number): BenchLook {
  return look.kind === "zone" && look.zone === zone ? { kind: "picture" } : { kind: "zone", zone };
}

function stepBy(store: BenchStore, by: number): void {
  const { plan, step } = store.getState();
  const steps: Step[] = [
    { stage: "colour" },
    { stage: "mix" },
    ...plan.passes.map(({ id }) => ({ stage: "pass" as const, id })),
    { stage: "finish" },
  ];
  // From a set one goes on to its first pass, or back to the step before that.
  const hand = handOf({ plan, step });
  const at = hand ? hand.first + 2 - (step.stage === "set" && by > 0 ? 1 : 0) : steps.findIndex(({ stage }) => stage === step.stage);
  const next = steps[Math.min(Math.max(at + by, 0), steps.length - 1)]!;
  store.getState().set({ step: next, chosenStrands: [], chosenKnot: undefined });
}

function isTyping(target: HTMLElement): boolean {
  return target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}
