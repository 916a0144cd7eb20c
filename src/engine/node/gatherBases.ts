import type { CompiledPlan } from "@/core/plan/compilePlan";
import { NO_BASES, type Bases } from "../evaluate/bases";
import { isGatheredOnTheWay, needsBases } from "../masks/maskKeys";
import { looksAtWhole, looksAtWholeAfterMix } from "../evaluate/runs";
import type { ShownMask } from "../masks/stageMasks";
import { overviewOf } from "./smallerLevels";
import type { RawLayout } from "./rawLevels";
import { plainStageOf, stageOf } from "./stageOf";

/** The cleaned levels of a picture: at full size and, where there is one, at preview size. */
export interface Cleaned {
  full: RawLayout;
  overview?: RawLayout | undefined;
}

/** A message to a thread. */
export interface Gathering {
  layout: RawLayout;
  plan: CompiledPlan;
  /** A mask to be rendered instead of the print. */
  shown: ShownMask | undefined;
  /** The picture at preview size; absent: made. */
  overview: RawLayout | undefined;
  cleaned: Cleaned | undefined;
}

/** Whether any of a plan, or of the mask shown, asks what only the whole picture can tell. */
export function needsWhole({ plan, shown }: Gathering): boolean {
  const mask = shown?.mask;
  return looksAtWhole(plan) || (!!mask && (needsBases(mask) || isGatheredOnTheWay(mask.gate)));
}

/** What a plan needs of the whole picture, gathered at preview size: the same in the page, here and in every thread. */
export function gatherBases({ layout, plan, shown, overview, cleaned }: Gathering): Bases {
  const found = overview ?? overviewOf(layout);
  const clean = cleaned && (cleaned.overview ?? overviewOf(cleaned.full));
  // Nothing need be mixed for what colour passes look at.
  if (!shown && !looksAtWholeAfterMix(plan)) return { ...NO_BASES, colour: plainStageOf(found, clean).basesBeforeMix(plan) };
  const stage = stageOf(found, clean);
  stage.update(plan, undefined);
  return shown ? stage.basesToShow(shown, plan.passes.length) : stage.bases();
}
