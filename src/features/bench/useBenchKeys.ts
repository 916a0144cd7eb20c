import { useEffect } from "react";
import type { BenchLook } from "@/engine/messages";
import { BRUSH_STEP, sizeBrush } from "./brushSize";
import { isTyping } from "./isTyping";
import { closePolygon } from "./drawing/drawShapes";
import { deletePicked } from "./passes/exposure/pickedStrokes";
import { deleteShape } from "./regionEdits";
import { chooseStep, takeUp, chosenPass, chosenSet, handOf, withPass, withSet, type BenchStore, type Step } from "./benchStore";
import { isDrawing, isPicking } from "./tools";

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
      const key = event.key.toLowerCase();
      if (key === "q") store.getState().set({ isBefore: false });
      if (key === "a") store.getState().set({ isMaskIgnored: false });
      if (key === "w") holdMask(store, false);
    };
    const onBlur = () => {
      store.getState().set({ isBefore: false, isMaskIgnored: false });
      holdMask(store, false);
    };
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
  const toggle = (kind: "stepped" | "colour" | "change" | "map" | "exposure") => () =>
    state.set({ look: { kind: state.look.kind === kind ? "picture" : kind } });
  return {
    t: () => state.set({ look: zoneLook(state.look, 10) }),
    escape: () => escape(store),
    enter: () => closePolygon(store),
    backspace: () => dropCorner(store),
    delete: () => deleteThing(store),
    d: () => takeUp(store, "dodge"),
    b: () => takeUp(store, "burn"),
    k: () => state.set({ showsRegion: !state.showsRegion }),
    w: () => holdMask(store, true),
    a: () => state.set({ isMaskIgnored: true }),
    e: () => state.set({ drawing: { ...state.drawing, erase: !state.drawing.erase } }),
    "[": () => sizeBrush(store, 1 / BRUSH_STEP),
    "]": () => sizeBrush(store, BRUSH_STEP),
    s: toggle("stepped"),
    c: toggle("colour"),
    x: toggle("change"),
    j: toggle("map"),
    y: toggle("exposure"),
    u: () => state.set({ isUpToHere: !state.isUpToHere }),
    v: () => state.set({ screens: !state.screens }),
    q: () => state.set({ isBefore: true }),
    r: () => takeUp(store, "read"),
    h: () => takeUp(store, "pull-hue"),
    l: () => takeUp(store, "pull-tone"),
    m: () => takeUp(store, "move"),
    i: () => takeUp(store, "pin"),
    n: () => stepBy(store, 1),
    p: () => stepBy(store, -1),
    o: () => switchOver(store),
    "?": onHelp,
  };
}

/** Shows the mask alone for as long as the key is held, then what was seen before. */
function holdMask(store: BenchStore, isHeld: boolean): void {
  const { look, lookBeforeMask, set } = store.getState();
  if (isHeld) set({ lookBeforeMask: look.kind === "mask" ? { kind: "picture" } : look, look: { kind: "mask" } });
  else if (lookBeforeMask) set({ look: lookBeforeMask, lookBeforeMask: undefined });
}

/** Lets go of what is being drawn, else of the tool, else of the shape in hand, else of the way of looking. */
function escape(store: BenchStore): void {
  const { drawing, chosenShape, tool, set } = store.getState();
  if (drawing.corners.length > 0) set({ drawing: { ...drawing, corners: [] } });
  else if (isDrawing(tool) || isPicking(tool)) set({ tool: "read" });
  else if (chosenShape) set({ chosenShape: undefined });
  else set({ look: { kind: "picture" } });
}

/** Deletes the strokes that are picked, else the shape in hand. */
function deleteThing(store: BenchStore): void {
  if (store.getState().pickedStrokes.length > 0) deletePicked(store);
  else deleteShape(store);
}

function dropCorner(store: BenchStore): void {
  const { drawing, set } = store.getState();
  if (drawing.corners.length > 0) set({ drawing: { ...drawing, corners: drawing.corners.slice(0, -1) } });
  else deleteThing(store);
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
  chooseStep(store, next);
}
