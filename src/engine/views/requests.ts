import type { StopsOf } from "../masks/stopsPlanes";
import { shownMaskById, shownMaskOf, type CompiledPlan } from "@/core/plan/compilePlan";
import { frameKey, isWholeFrame } from "@/core/frame/frame";
import { encodedLight, lookShare, lookTable, type Look } from "@/core/view/toneTables";
import type { BenchLook, RenderRequest, Screen } from "../messages/messages";
import { changeDetail } from "../evaluate/runs";
import type { ShownMask } from "../masks/stageMasks";
import type { Showing } from "../stage/stageTypes";
import { stopsOf } from "./smallPictures";

// What a request for a frame comes to.

const EVERYWHERE: ShownMask = { mask: undefined, reach: undefined, beforeMix: false };

/** The mask of the pass or set in hand; of neither it is everywhere. */
export function activeMask({ plan, active }: RenderRequest): ShownMask {
  if (active?.set) return shownMaskById(plan, active.set)?.shown ?? EVERYWHERE;
  const pass = active && active.end - active.first === 1 ? plan.passes[active.first] : undefined;
  return pass ? shownMaskOf(plan, pass) : EVERYWHERE;
}

/** The pass in hand, where it gives stops to places. */
export function activeStops({ plan, active }: RenderRequest): StopsOf | undefined {
  return active && active.end - active.first === 1 ? stopsOf(plan, plan.passes[active.first]) : undefined;
}

/** What a frame of a part of a level, or of the preview, is to be seen on. */
export function screenOf(area: Screen["area"], { shownFrame }: RenderRequest): Screen {
  return { name: JSON.stringify([area, frameKey(shownFrame)]), area, isWhole: isWholeFrame(shownFrame) };
}

/** Looks whose details stay while tones change: those of others are edges between steps, or of what a hand moves. */
const SMOOTHLY_CHANGED: readonly BenchLook["kind"][] = ["picture", "colour", "map"];

/** Tells what a hand moves in a request from all else; undefined where the frame must be whole, for detail changes with it. */
export function movedIn(request: RenderRequest, { passes, spotsKey, clean }: CompiledPlan): string | undefined {
  const { active, look, shownSize, shownFrame, screens, isPeek } = request;
  if (isPeek || screens || !SMOOTHLY_CHANGED.includes(look.kind)) return undefined;
  if (active && changeDetail(passes.slice(active.first, active.end))) return undefined;
  return JSON.stringify([active, look, shownSize, frameKey(shownFrame), passes.length, spotsKey, clean]);
}

const showings = new Map<string, Showing>();

/** Looks that show something else than the print. */
const SHOWN_BY: Partial<Record<BenchLook["kind"], Showing["of"]>> = {
  colour: "colour",
  change: "change",
  mask: "mask",
  exposure: "stops",
  dust: "dust",
};
const isLook = (look: BenchLook): look is Look => look.kind !== "map" && !SHOWN_BY[look.kind];

/** How a look is rendered. */
export function showingOf(look: BenchLook): Showing {
  const key = JSON.stringify(look);
  const known = showings.get(key);
  if (known) return known;
  const of = SHOWN_BY[look.kind] ?? "print";
  const table = look.kind === "colour" ? encodedLight() : lookTable(isLook(look) ? look : { kind: "picture" });
  const showing = {
    table,
    dithered: look.kind !== "stepped" && look.kind !== "colour",
    isSmooth: of === "print" && (!isLook(look) || look.kind === "picture"),
    of,
    screens: false,
    // The map lies over the print as it is.
    coloured: of === "print" ? "display-p3" : undefined,
    colourShare: isLook(look) ? lookShare(look) : undefined,
  } as const;
  showings.set(key, showing);
  return showing;
}
