import { v4 as uuid } from "uuid";
import { createStore, type StoreApi } from "zustand/vanilla";
import { Revision, type PictureSummary, type PrintName, type PrintSummary, type RevisionSummary } from "@/contracts/api";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { Plan } from "@/core/plan/plan";
import type { Brush } from "@/core/brush/stroke";
import type { Combine, Corner, Point } from "@/core/region/region";
import { passesBeforeMix } from "@/core/plan/editPasses";
import type { Size } from "@/core/spatial/areaReduce";
import type { Twins } from "@/core/mix/twins";
import type { Tinge } from "@/core/passes/separation/move";
import type { BenchLook, Cleaning, Place } from "@/engine/messages/messages";
import type { PointReading, StageHistograms } from "@/engine/stage/stageTypes";
import type { Framing } from "../frame/ratios";
import { SPOT_SIZE, type Spotting } from "../spots/spotEdits";
import { reachOf, RESTING_FADE, type Spot } from "@/core/spots/spot";
import { redoTarget, undoTarget, withoutStep, withStep, type History } from "./history";
import type { SaveListener, SaveQueue, SaveState } from "./saveQueue";
import { withoutMeaning } from "./inHand";
import { chosenPass, confinedInHand } from "./inPlan";
import { unfitting, type Tool } from "../tools/tools";
import type { Unsent } from "./unsentStore";

/** What the server gives the bench to start with. */
export interface BenchStart {
  picture: PictureSummary;
  prepared: PreparedPicture;
  print: PrintSummary;
  /** All of its picture, this one too. */
  prints: PrintName[];
  revisions: RevisionSummary[];
  plan: Plan;
}

/** The step in hand: a stage of the plan by name, or a pass or a set of passes by id. */
export type Step = { stage: "frame" | "spots" | "colour" | "mix" | "finish" } | { stage: "pass" | "set"; id: string };
/** How the next stroke dodges or burns. */
export interface Exposing extends Brush {
  /** In stops. */
  ceiling: number;
}

/** How the next shape is drawn. */
export interface Drawing extends Brush {
  combine: Combine;
  erase: boolean;
  /** Corners of a polygon that is not closed yet. */
  corners: readonly Corner[];
}

/** What a print is compared with: itself without the step in hand and all after it, its mix without any pass, its picture in colour. */
export type Before = "step" | "mix" | "source";

/** Sizes of a patch that a colour is picked from, and how far they reach to either side of a place in pixels of the preview. */
export const PATCH_SIZES = ["point", "small", "broad"] as const;
export const PATCH_REACH: Record<(typeof PATCH_SIZES)[number], number> = { point: 0, small: 3, broad: 12 };
export interface BenchState {
  /** The picture's full size in pixels. */
  readonly picture: Size;
  /** The plan as it is seen, a move under the hand included. */
  plan: Plan;
  /** The plan as it would be with what is pointed at to be tried: it is seen on the print and the scale, and changes nothing else. */
  tried: Plan | undefined;
  /** The plan as it was when a hand began to draw on the picture; undefined while none does. */
  planAtPress: Plan | undefined;
  history: History;
  step: Step;
  tool: Tool;
  look: BenchLook;
  /** What is seen instead of the print, to compare it with. */
  before: Before | undefined;
  /** When what is shown instead was asked for by a press that still lasts, in milliseconds of the page's clock. */
  beforeSince: number | undefined;
  /** Whether the print is seen only as far as the step in hand. */
  isUpToHere: boolean;
  /** Whether full black and bare paper are drawn as screens. */
  screens: boolean;
  /** Indices of the chosen strands, the one in hand last; index of the chosen hue knot, and of the chosen point of a tint. */
  chosenStrands: readonly number[];
  chosenKnot: number | undefined;
  chosenPoint: number | undefined;
  /** What the worker counted of the picture last. */
  measured: StageHistograms | undefined;
  /** How large a patch colours are picked from, and what was picked to stay before there is anything to move. */
  patch: (typeof PATCH_SIZES)[number];
  pickedStays: Tinge | undefined;
  /** Two colours of one tone that are pointed at in the panel. */
  litTwins: Twins | undefined;
  /** How far the cleaned colours are; undefined until a plan asks for them. */
  cleaning: Cleaning | undefined;
  /** How much of the picture the pass in hand acts on, 0–1; undefined where it is all. */
  acting: number | undefined;
  drawing: Drawing;
  exposing: Exposing;
  /** Strokes of the exposure in hand that are picked, by their place in it. */
  pickedStrokes: readonly number[];
  /** What a loop clears, the loop that is being drawn, and the size of the next accents in long edges. */
  clearing: "both" | "dodge" | "burn";
  lasso: readonly Point[];
  accentScale: number;
  /** How the next crop is kept. */
  framing: Framing;
  /**
   * How the next spot is covered, the one in hand by its id, the one being drawn, and those that wait for a place to take from, unless it
   * is told.
   */
  spotting: Spotting;
  chosenSpot: string | undefined;
  drawnSpot: Spot | undefined;
  uncovered: readonly { spot: Spot; isPlaced: boolean }[];
  /** Where the spot last covered from elsewhere took from before, so that it is always another place. */
  triedSources: { id: string; from: readonly Point[] } | undefined;
  /** How long a string the hand pulls the brush by, in long edges: the way it goes is steadier than the hand's. */
  steady: number;
  /** The shape of the region in hand that is edited, by id. */
  chosenShape: string | undefined;
  /** Whether the region in hand is shown on the picture. */
  showsRegion: boolean;
  /** Whether what is painted in an exposure pass is drawn as lines in thirds of a stop. */
  showsStops: boolean;
  /** Whether bright patches touching the frame are marked, and where handwork shows. */
  showsBright: boolean;
  showsHandwork: boolean;
  /** Whether the print is seen as if the pass in hand acted everywhere, for as long as a key is held. */
  isMaskIgnored: boolean;
  /** What was on show before the mask, held up by a key. */
  lookBeforeHeld: BenchLook | undefined;
  /** Places kept an eye on, and what was read there last. */
  pins: readonly Place[];
  pinReadings: readonly PointReading[];
  hueShares: Float32Array | undefined;
  reading: PointReading | undefined;
  saveState: SaveState;
  saveMessage: string | undefined;
  failure: string | undefined;
  /** Something worth knowing that is no failure. */
  notice: string | undefined;
  /** Whether the worker holds the picture. */
  isReady: boolean;
}

export interface BenchActions {
  /** Changes the plan under the hand; nothing is saved until `commit`. */
  adjust(change: (plan: Plan) => Plan): void;
  /** Takes the plan back to what it was when a drag began; until `endDrag` nothing adjusts it. */
  cancelDrag(plan: Plan): void;
  endDrag(): void;
  /** Makes what was adjusted a step of the history, named. */
  commit(label: string): void;
  /** Commits when the hand has rested a moment: for keys and wheel, where no release tells the end. */
  commitSoon(label: string): void;
  /** Commits at once what `commitSoon` still holds back. */
  commitPending(): void;
  /** Goes to any step of the history. */
  jump(id: string): Promise<void>;
  /** The plan at a step of the history; undefined where it cannot be fetched. */
  planAt(id: string): Promise<Plan | undefined>;
  undo(): Promise<void>;
  redo(): Promise<void>;
  /** Takes a step of the plan in hand. */
  chooseStep(step: Step): void;
  /** Takes a tool up, or says why it has no use here. */
  takeUp(tool: Tool): void;
  putDown(): void;
  /** A hand begins to draw on the picture, or lets go of it. */
  press(): void;
  letGo(): void;
  /** Changes what has no transition of its own. */
  set(
    change: Partial<Omit<BenchState, "picture" | "plan" | "planAtPress" | "history" | "step" | "tool" | "saveState" | "saveMessage">>,
  ): void;
}

export type BenchStore = StoreApi<BenchState & BenchActions>;

const REST_MS = 500;

/** The state of one print on the bench. Every committed change goes to the save queue. */
export function createBenchStore(
  start: BenchStart,
  queue: (listener: SaveListener) => SaveQueue,
): BenchStore & { restore(): Promise<void>; saves: SaveQueue } {
  const plans = new Map<string, Plan>([[start.print.head, start.plan]]);
  let committed = start.plan;
  let soon: { timer: ReturnType<typeof setTimeout>; label: string } | undefined;

  const store = createStore<BenchState & BenchActions>()((put, get) => {
    const set = (changed: Partial<BenchState>) =>
      put((before) => ({ ...changed, ...withoutMeaning(before, { ...before, ...changed }, changed) }));
    // A step may have to be fetched: the next undo or redo waits for it, then starts from where it led.
    let turn: Promise<void> = Promise.resolve();
    const inTurn = (go: () => Promise<void>) => {
      flush();
      return (turn = turn.then(go));
    };
    const planAt = async (id: string) => {
      const plan = plans.get(id) ?? (await fetchPlan(start.print.id, id));
      if (plan) plans.set(id, plan);
      return plan;
    };
    const goTo = async (target: RevisionSummary | undefined) => {
      if (!target) return;
      const plan = await planAt(target.id);
      if (!plan) {
        set({ failure: "That step could not be fetched. Nothing is lost; try again in a moment." });
        return;
      }
      const base = get().history.head;
      committed = plan;
      set({
        plan,
        history: { ...get().history, head: target.id },
        chosenStrands: [],
        pickedStrokes: [],
        chosenKnot: undefined,
      });
      saves.add({ kind: "head", base, to: target.id });
    };
    let isCancelled = false;
    const flush = () => {
      if (soon) get().commit(soon.label);
    };
    return {
      plan: start.plan,
      tried: undefined,
      planAtPress: undefined,
      history: { revisions: start.revisions, head: start.print.head },
      step: firstStep(start.plan),
      picture: start.prepared,
      tool: "read",
      look: { kind: "picture" },
      before: undefined,
      beforeSince: undefined,
      isUpToHere: false,
      screens: false,
      chosenStrands: [],
      chosenKnot: undefined,
      chosenPoint: undefined,
      measured: undefined,
      acting: undefined,
      cleaning: undefined,
      patch: "small",
      pickedStays: undefined,
      litTwins: undefined,
      drawing: { radius: 0.04, hardness: 0.3, flow: 0.5, pressure: "flow", erase: false, combine: "add", corners: [] },
      pickedStrokes: [],
      clearing: "both",
      lasso: [],
      accentScale: 0.03,
      framing: { ratio: "free", own: 1.5, isUpright: start.prepared.height > start.prepared.width, guide: "thirds" },
      spotting: { kind: "heal", ...reachOf({ size: SPOT_SIZE, fade: RESTING_FADE }), takesFrom: undefined },
      chosenSpot: undefined,
      drawnSpot: undefined,
      uncovered: [],
      triedSources: undefined,
      steady: 0,
      exposing: { radius: 0.06, hardness: 0.1, flow: 0.08, pressure: "flow", ceiling: 0.5 },
      chosenShape: undefined,
      showsRegion: true,
      showsStops: false,
      showsBright: false,
      showsHandwork: false,
      isMaskIgnored: false,
      lookBeforeHeld: undefined,
      pins: start.print.pins,
      pinReadings: [],
      hueShares: undefined,
      reading: undefined,
      saveState: "saved",
      saveMessage: undefined,
      failure: undefined,
      notice: undefined,
      isReady: false,
      adjust(change) {
        if (!isCancelled) set({ plan: change(get().plan) });
      },
      cancelDrag(plan) {
        set({ plan });
        isCancelled = true;
      },
      endDrag: () => void (isCancelled = false),
      commit(label) {
        clearTimeout(soon?.timer);
        soon = undefined;
        const { plan, history } = get();
        if (plan === committed || JSON.stringify(plan) === JSON.stringify(committed)) {
          if (saves.isEmpty && get().saveState === "saving") set({ saveState: "saved" });
          return;
        }
        const id = uuid();
        plans.set(id, plan);
        committed = plan;
        set({ history: withStep(history, { id, label }) });
        saves.add({ kind: "step", id, base: history.head, label, plan });
      },
      commitSoon(label) {
        clearTimeout(soon?.timer);
        if (get().saveState === "saved") set({ saveState: "saving" });
        soon = { label, timer: setTimeout(() => get().commit(label), REST_MS) };
      },
      commitPending: () => flush(),
      jump: (id) =>
        inTurn(() => {
          const { revisions, head } = get().history;
          return goTo(id === head ? undefined : revisions.find((revision) => revision.id === id));
        }),
      planAt,
      chooseStep: (step) => set(step.stage === "spots" ? { step, tool: "spot" } : { step }),
      takeUp(tool) {
        const { drawing, ...state } = get();
        const failure = unfitting(tool, chosenPass(state)?.pass, confinedInHand(state), state.step.stage);
        set(failure ? { failure } : { tool, drawing: { ...drawing, corners: [] } });
      },
      putDown: () => set({ tool: "read" }),
      press: () => set({ planAtPress: get().plan }),
      letGo: () => set({ planAtPress: undefined }),
      undo: () => inTurn(() => goTo(undoTarget(get().history))),
      redo: () => inTurn(() => goTo(redoTarget(get().history))),
      set,
    };
  });

  const saves = queue({
    onState: (saveState, saveMessage) => store.setState({ saveState, saveMessage }),
    onLeftOut(edit, reason) {
      if (edit.kind === "head") return;
      const { history } = store.getState();
      store.setState({
        history: withoutStep(history, edit.id),
        notice: `“${edit.label}” could not be saved (${reason}) and was left out of the history. All later work is saved.`,
      });
    },
  });

  /** Puts unsent work of an earlier page back on the bench. */
  const restore = async () => {
    for (const edit of await saves.restore()) {
      const history = replay(store.getState().history, edit);
      const plan = edit.kind === "step" ? edit.plan : (plans.get(edit.to) ?? (await fetchPlan(start.print.id, edit.to)));
      if (edit.kind === "step") plans.set(edit.id, edit.plan);
      if (!plan) continue;
      committed = plan;
      const restored = { plan, history };
      store.setState((before) => ({ ...restored, ...withoutMeaning(before, { ...before, ...restored }, restored) }));
    }
  };
  return Object.assign(store, { restore, saves });
}

/** What is in hand when one sits down: the first pass after the mix. */
function firstStep(plan: Plan): Step {
  const first = plan.passes[passesBeforeMix(plan)];
  return first ? { stage: "pass", id: first.id } : { stage: "mix" };
}

function replay(history: History, edit: Unsent): History {
  if (edit.kind === "head") return { ...history, head: edit.to };
  if (history.revisions.some((revision) => revision.id === edit.id)) return { ...history, head: edit.id };
  return withStep(history, edit);
}

async function fetchPlan(printId: string, id: string): Promise<Plan | undefined> {
  const response = await fetch(`/api/prints/${printId}/revisions/${id}`).catch(() => undefined);
  return response?.ok ? Revision.parse(await response.json()).plan : undefined;
}
