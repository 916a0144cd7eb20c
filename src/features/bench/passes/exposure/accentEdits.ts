import type { ExposureStroke } from "@/core/steps/placedStops";
import type { Pass } from "@/core/passes/pass";
import { v4 as uuid } from "uuid";
import { restingPass } from "@/core/plan/defaultPlan";
import { freshPassName, insertPass } from "@/core/plan/editPasses";
import { leavesAll } from "@/core/passes/passKinds";
import type { ExposureMove } from "@/core/passes/exposure/move";
import type { Plan } from "@/core/plan/plan";
import type { PictureView } from "@/engine/browser/pictureWorker";
import type { BenchStore } from "../../state/benchStore";
import { withPass } from "../../state/inPlan";

/** Accents are laid in at half of what they are. */
const ACCENT_STRENGTH = 0.5;

/** Strokes that were suggested and that nobody has touched since. */
const suggested = new WeakSet<readonly ExposureStroke[]>();

/** Whether a pass holds accents as they were suggested, and nothing else. */
export function isSuggested({ strokes }: ExposureMove): boolean {
  return suggested.has(strokes);
}

/**
 * Lays accents in: in the place of those suggested before, in the pass in hand where it does nothing yet, else in a pass of their
 * own after it. What somebody painted is never touched.
 */
export async function suggestAccents(store: BenchStore, engine: PictureView, passId: string): Promise<void> {
  const { plan, accentScale, set } = store.getState();
  const strokes = await engine.accents(plan, passId, accentScale);
  if (!strokes) return; // the bench has said why
  if (strokes.length === 0) return set({ notice: "The picture has no lights and darks of that size. Try another." });
  suggested.add(strokes);
  const now = store.getState().plan;
  const pass = now.passes.find(({ id }) => id === passId);
  if (pass?.move.kind !== "exposure") return;
  const laid = withAccents(now, pass, pass.move, strokes);
  if (!laid) return set({ failure: "A plan holds no more passes than these." });
  store.getState().adjust(() => laid.plan);
  store.getState().chooseStep({ stage: "pass", id: laid.id });
  store.getState().commit(`Modelling of ${strokes.length} strokes suggested`);
}

function withAccents(plan: Plan, pass: Pass, move: ExposureMove, strokes: ExposureStroke[]): { plan: Plan; id: string } | undefined {
  const lay = (into: Pass, strength: number): Pass => ({ ...into, strength, move: { ...move, strokes } });
  if (isSuggested(move)) return { plan: withPass(plan, pass.id, (own) => lay(own, own.strength)), id: pass.id };
  if (move.strokes.length === 0 && leavesAll({ ...pass, on: true, strength: 1 })) {
    return { plan: withPass(plan, pass.id, (own) => lay(own, ACCENT_STRENGTH)), id: pass.id };
  }
  const fresh = restingPass("exposure", uuid(), freshPassName(plan, "Modelling"));
  const made = { ...fresh, strength: ACCENT_STRENGTH, region: pass.region, move: { ...(fresh.move as ExposureMove), strokes } };
  const grown = insertPass(plan, made, pass.id);
  return grown && { plan: grown, id: made.id };
}
