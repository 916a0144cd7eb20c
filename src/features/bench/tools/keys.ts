import type { BenchLook } from "@/engine/messages/messages";
import { passesBeforeMix } from "@/core/plan/editPasses";
import type { BenchStore, Step } from "../state/benchStore";
import { chosenPass, chosenSet, activeOf, withPass, withSet } from "../state/inPlan";
import { pressBefore, releaseBefore } from "./before";
import { BRUSH_STEP, sizeBrush } from "./brushSize";
import { closePolygon } from "./drawing/drawShapes";
import { setFraming, turnFrame } from "../frame/frameEdits";
import { deletePicked } from "../passes/exposure/pickedStrokes";
import { deleteSpot } from "../spots/spotEdits";
import { deleteShape } from "../regions/regionEdits";
import { isDrawing, isPicking, picksColour, type Tool } from "./tools";
import type { Zone } from "@/core/units";

// Every key of the bench, in one table: the handler acts by it, the page of help shows it.

/** What keys may do to the view of the picture. */
export interface ViewActions {
  zoomBy(factor: number): void;
  fit(): void;
  oneToOne(): void;
}

/** What a key acts on. */
export interface KeyBench {
  store: BenchStore;
  view: ViewActions | undefined;
  help(): void;
}

export interface BenchKey {
  /** As events name them, in lower case. */
  on: readonly string[];
  /** Whether Ctrl or Cmd is held with it, and Shift; Shift is not looked at where this is absent. */
  ctrl?: boolean;
  shift?: boolean;
  act(bench: KeyBench, key: string): void;
  /** For one that acts as long as it is held. */
  release?(store: BenchStore): void;
}

/** Keys that are shown together with one line of words. */
export interface KeyLine {
  shown: string;
  words: string;
  keys: readonly BenchKey[];
}

const KEY_ZOOM = 1.4;
const take =
  (tool: Tool) =>
  ({ store }: KeyBench) =>
    store.getState().takeUp(tool);
const toggle =
  (kind: "stepped" | "colour" | "change" | "map" | "exposure" | "dust") =>
  ({ store }: KeyBench) => {
    const { look, set } = store.getState();
    set({ look: { kind: look.kind === kind ? "picture" : kind } });
  };
const key = (on: string, act: BenchKey["act"]): BenchKey => ({ on: [on], act });

/** For keys that act while the print is framed. */
const inFrame =
  (act: (bench: KeyBench) => void): BenchKey["act"] =>
  (bench) =>
    bench.store.getState().step.stage === "frame" && act(bench);

export const KEY_LINES: Record<string, readonly KeyLine[]> = {
  Looking: [
    {
      shown: "0 … 9, T",
      words: "light a zone (T is ten); again, or Esc, for all",
      keys: [
        { on: "0123456789".split(""), act: ({ store }, zone) => soloZone(store, Number(zone)) },
        key("t", ({ store }) => soloZone(store, 10)),
      ],
    },
    { shown: "S", words: "stepped view", keys: [{ on: ["s"], shift: false, act: toggle("stepped") }] },
    { shown: "Shift+S", words: "small things pushed, so that dust shows", keys: [{ on: ["s"], shift: true, act: toggle("dust") }] },
    { shown: "C", words: "source colour", keys: [key("c", toggle("colour"))] },
    { shown: "X", words: "what the step in hand changes, on mid grey", keys: [key("x", toggle("change"))] },
    { shown: "Y", words: "what is painted in an exposure pass, on mid grey", keys: [key("y", toggle("exposure"))] },
    { shown: "J", words: "printing map: all regions and what is done there", keys: [key("j", toggle("map"))] },
    {
      shown: "U",
      words: "the print only as far as the step in hand",
      keys: [key("u", ({ store }) => store.getState().set({ isUpToHere: !store.getState().isUpToHere }))],
    },
    {
      shown: "V",
      words: "show full black as lines, bare paper as dots",
      keys: [key("v", ({ store }) => store.getState().set({ screens: !store.getState().screens }))],
    },
    {
      shown: "Q",
      words: "before the step in hand: as long as it is held, or from a tap to the next",
      keys: [{ on: ["q"], shift: false, act: ({ store }) => pressBefore(store, "step"), release: releaseBefore }],
    },
    {
      shown: "Shift+Q",
      words: "the straight mix without any pass, in the same way",
      keys: [{ on: ["q"], shift: true, act: ({ store }) => pressBefore(store, "mix"), release: releaseBefore }],
    },
    {
      shown: "W, held",
      words: "the mask of the pass alone: white acts",
      keys: [{ on: ["w"], act: ({ store }) => holdLook(store, "mask"), release: (store) => holdLook(store, undefined) }],
    },
    {
      shown: "Z, held",
      words: "the print, while the colour before the mix is seen",
      keys: [{ on: ["z"], ctrl: false, act: ({ store }) => holdLook(store, "picture"), release: (store) => holdLook(store, undefined) }],
    },
    {
      shown: "A, held",
      words: "the pass as if it acted everywhere",
      keys: [
        {
          on: ["a"],
          act: ({ store }) => store.getState().set({ isMaskIgnored: true }),
          release: (store) => store.getState().set({ isMaskIgnored: false }),
        },
      ],
    },
    {
      shown: "K",
      words: "lines and hatch of the region on and off",
      keys: [key("k", ({ store }) => store.getState().set({ showsRegion: !store.getState().showsRegion }))],
    },
    {
      shown: "F, G",
      words: "whole picture, one to one",
      keys: [key("f", ({ view }) => view?.fit()), key("g", ({ view }) => view?.oneToOne())],
    },
    {
      shown: "+, −, wheel",
      words: "zoom",
      keys: [{ on: ["+", "="], act: ({ view }) => view?.zoomBy(KEY_ZOOM) }, key("-", ({ view }) => view?.zoomBy(1 / KEY_ZOOM))],
    },
    { shown: "Space, held", words: "drag the picture", keys: [] },
    { shown: "?", words: "this page", keys: [key("?", ({ help }) => help())] },
  ],
  "Steps of the print": [
    {
      shown: "N, P",
      words: "next and previous step",
      keys: [key("n", ({ store }) => stepBy(store, 1)), key("p", ({ store }) => stepBy(store, -1))],
    },
    { shown: "O", words: "pass or set on and off", keys: [key("o", ({ store }) => switchOver(store))] },
    {
      shown: "Ctrl+Z, Ctrl+Shift+Z",
      words: "undo, redo",
      keys: [
        { on: ["z"], ctrl: true, shift: false, act: ({ store }) => void store.getState().undo() },
        { on: ["z"], ctrl: true, shift: true, act: ({ store }) => void store.getState().redo() },
        { on: ["y"], ctrl: true, act: ({ store }) => void store.getState().redo() },
      ],
    },
  ],
  "In the picture": [
    {
      shown: "R, H, Shift+H, L, I, M",
      words: "read, pull hue, pull weights, pull tone, pin, move",
      keys: [
        key("r", take("read")),
        { on: ["h"], shift: false, act: take("pull-hue") },
        { on: ["h"], shift: true, act: take("pull-weights") },
        key("l", take("pull-tone")),
        key("i", take("pin")),
        key("m", take("move")),
      ],
    },
    { shown: "D, B", words: "dodge, burn: in an exposure pass, under way too", keys: [key("d", take("dodge")), key("b", take("burn"))] },
    {
      shown: "E",
      words: "brush lays on or erases; Alt while painting turns it round",
      keys: [
        key("e", ({ store }) => {
          const { drawing, set } = store.getState();
          set({ drawing: { ...drawing, erase: !drawing.erase } });
        }),
      ],
    },
    {
      shown: "[, ], Shift+wheel, Ctrl+drag",
      words: "brush smaller, larger",
      keys: [key("[", ({ store }) => sizeBrush(store, 1 / BRUSH_STEP)), key("]", ({ store }) => sizeBrush(store, BRUSH_STEP))],
    },
    { shown: "Shift+click, brush", words: "straight line from the last place", keys: [] },
    { shown: "Shift while drawing a shape", words: "keep its tool in hand", keys: [] },
    {
      shown: "Enter, Backspace, Esc",
      words: "close a polygon, take back a corner, let go",
      keys: [
        key("enter", ({ store }) => closePolygon(store)),
        key("backspace", ({ store }) => dropCorner(store)),
        key("escape", ({ store }) => letGo(store)),
      ],
    },
    {
      shown: "Delete",
      words: "remove the strokes picked, or the shape or spot in hand",
      keys: [key("delete", ({ store }) => deleteThing(store))],
    },
  ],
  "In the frame": [
    {
      shown: ", and .",
      words: "turn the print a quarter, anticlockwise or clockwise",
      keys: [
        key(
          ",",
          inFrame(({ store }) => turnFrame(store, false)),
        ),
        key(
          ".",
          inFrame(({ store }) => turnFrame(store, true)),
        ),
      ],
    },
    {
      shown: "/",
      words: "lay kept proportions the other way",
      keys: [
        key(
          "/",
          inFrame(({ store }) => setFraming(store, { isUpright: !store.getState().framing.isUpright })),
        ),
      ],
    },
    { shown: "Arrows on a side or corner", words: "move it; with Shift, ten times", keys: [] },
  ],
  "By keys alone": [
    { shown: "Tab to the picture, arrows", words: "move a cursor on it by 10 pixels; with Shift 50, with Ctrl 1", keys: [] },
    { shown: "Enter there", words: "presses with the tool in hand; again, lets go", keys: [] },
    { shown: "Home, End", words: "on a strand or a gate's end: to the end of the scale", keys: [] },
  ],
  "By touch": [
    { shown: "One finger", words: "uses the tool in hand; held still, it reads", keys: [] },
    { shown: "Two fingers", words: "move the picture and enlarge it, and never paint", keys: [] },
    {
      shown: "Pen",
      words: "draws by its pressure; from then on fingers only move and read, until one takes up a tool from the tray",
      keys: [],
    },
  ],
  "On the scale and in the panel": [
    { shown: "Arrows on a strand", words: "place it; with Alt, take another tone; with Shift, ten times", keys: [] },
    { shown: "Ctrl+click on strands", words: "take several in hand; they move together", keys: [] },
    { shown: "Enter, Delete on a strand", words: "hold it, remove it", keys: [] },
    { shown: "Alt while dragging", words: "no snapping", keys: [] },
    { shown: "Shift while dragging", words: "push the neighbouring strands along", keys: [] },
    { shown: "Esc while dragging", words: "as it was before the drag", keys: [] },
    { shown: "Drag on the lower rail", words: "lift or lower that zone alone", keys: [] },
    { shown: "Drag across zone switches", words: "the pass acts on just those", keys: [] },
    { shown: "Double click on a slider", words: "back to rest; figures can be typed: VII½, −2/3", keys: [] },
  ],
};

const ALL_KEYS = Object.values(KEY_LINES).flatMap((lines) => lines.flatMap(({ keys }) => keys));

/** The key of an event, if the bench has it. */
export function keyOf({
  key: pressed,
  ctrlKey,
  metaKey,
  shiftKey,
}: Pick<KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "shiftKey">): BenchKey | undefined {
  const name = pressed.toLowerCase();
  return ALL_KEYS.find(
    ({ on, ctrl = false, shift }) => on.includes(name) && ctrl === (ctrlKey || metaKey) && (shift === undefined || shift === shiftKey),
  );
}

/** Lets go of all that acts as long as its key is held: the release may have gone to another window. */
export function releaseAll(store: BenchStore): void {
  for (const { release } of ALL_KEYS) release?.(store);
}

function soloZone(store: BenchStore, zone: Zone): void {
  const { look, set } = store.getState();
  const lit: BenchLook = look.kind === "zone" && look.zone === zone ? { kind: "picture" } : { kind: "zone", zone };
  set({ look: lit });
}

/** Shows the picture in another way for as long as a key is held, then as it was seen before. */
function holdLook(store: BenchStore, held: "mask" | "picture" | undefined): void {
  const { look, lookBeforeHeld, set } = store.getState();
  if (held) set({ lookBeforeHeld: lookBeforeHeld ?? (look.kind === held ? { kind: "picture" } : look), look: { kind: held } });
  else if (lookBeforeHeld) set({ look: lookBeforeHeld, lookBeforeHeld: undefined });
}

/** Lets go of what is being drawn, else of the spot in hand, else of the tool, else of the shape in hand, else of the way of looking. */
function letGo(store: BenchStore): void {
  const { drawing, chosenShape, chosenSpot, spotting, tool, set } = store.getState();
  if (drawing.corners.length > 0) set({ drawing: { ...drawing, corners: [] } });
  else if (spotting.takesFrom) set({ spotting: { ...spotting, takesFrom: undefined } });
  else if (chosenSpot) set({ chosenSpot: undefined });
  else if (isDrawing(tool) || isPicking(tool) || picksColour(tool)) store.getState().putDown();
  else if (chosenShape) set({ chosenShape: undefined });
  else set({ look: { kind: "picture" }, before: undefined });
}

/** Deletes the strokes that are picked, else the spot or the shape in hand. */
function deleteThing(store: BenchStore): void {
  const { pickedStrokes, chosenSpot } = store.getState();
  if (pickedStrokes.length > 0) deletePicked(store);
  else if (chosenSpot) deleteSpot(store);
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

function stepBy(store: BenchStore, by: number): void {
  const { plan, step } = store.getState();
  const passes = plan.passes.map(({ id }) => ({ stage: "pass" as const, id }));
  const mixAt = passesBeforeMix(plan);
  const steps: Step[] = [
    { stage: "frame" },
    { stage: "spots" },
    { stage: "colour" },
    ...passes.slice(0, mixAt),
    { stage: "mix" },
    ...passes.slice(mixAt),
    { stage: "finish" },
  ];
  // From a set one goes on to its first pass, or back to the step before that.
  const hand = activeOf({ plan, step });
  const at = hand
    ? steps.indexOf(passes[hand.first]!) - (step.stage === "set" && by > 0 ? 1 : 0)
    : steps.findIndex(({ stage }) => stage === step.stage);
  const next = steps[Math.min(Math.max(at + by, 0), steps.length - 1)]!;
  store.getState().chooseStep(next);
}
