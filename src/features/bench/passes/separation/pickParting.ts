import type { Pass } from "@/core/passes/pass";
import type { Vector3 } from "@/core/colour/matrix3";
import { linearP3ToOklab } from "@/core/colour/oklab";
import type { Parting, SeparationMove, Tinge } from "@/core/passes/separation/move";
import { unfitParting } from "@/core/passes/separation/separation";
import type { ColourPick } from "../../tools/tools";
import type { BenchStore } from "../../state/benchStore";
import { withMove } from "../../state/inPlan";

/** A tinge fainter than this is none. Units: OKLab. */
const LEAST_TINGE = 0.015;
/** How far two colours are drawn apart when they have just been picked: enough to be seen. */
const FIRST_APART = 0.3;
const NEUTRAL: Tinge = { a: 0, b: 0 };

const REFUSED = {
  same: "What stays and what moves would be one colour. Nothing was changed; touch another place.",
  "in line": "That colour lies in line with the two, so that it could not stay while they part. Nothing was changed; touch another place.",
};

/** Takes a colour as the one that stays, that moves, or that is held; says why where it cannot. */
export function pickParting(store: BenchStore, pass: Pass, move: SeparationMove, tool: ColourPick, colour: Vector3): string | undefined {
  const [, a, b] = linearP3ToOklab(colour);
  const tinge = { a, b };
  const { set, pickedStays } = store.getState();
  const { parting } = move;
  if (tool === "pick-stays") {
    if (parting) return put(store, pass, move, { ...parting, stays: tinge }, "What stays picked");
    set({ pickedStays: tinge });
    return undefined;
  }
  if (tool === "pick-held") return parting ? put(store, pass, move, { ...parting, held: tinge }, "Third colour held") : undefined;
  if (Math.hypot(a, b) < LEAST_TINGE) return "This place has no colour that could move: neutrals stay. Touch a coloured one.";
  const { stays = pickedStays ?? NEUTRAL, held = null, amount = 0 } = parting ?? {};
  return put(store, pass, move, { stays, moves: tinge, held, amount: amount || FIRST_APART }, "What moves picked");
}

function put(store: BenchStore, { id, name }: Pass, move: SeparationMove, parting: Parting, words: string): string | undefined {
  const unfit = unfitParting(parting);
  if (unfit) return REFUSED[unfit];
  const { adjust, commit } = store.getState();
  adjust((plan) => withMove(plan, id, { ...move, parting }));
  commit(`${words} in ${name}`);
  return undefined;
}
