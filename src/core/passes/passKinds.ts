import type { Stroke } from "../brush/stroke";
import type { Move, MoveKind, Pass } from "../plan/plan";
import type { PlacedStops, Step } from "../steps/step";
import type { ZoneCurve } from "../steps/zoneCurve";
import { ZONE_COUNT } from "../zones/zone";
import { contrast } from "./contrast/kind";
import { contrastMask } from "./contrast-mask/kind";
import { edgeBurn } from "./edge-burn/kind";
import { exposure } from "./exposure/kind";
import type { PassKind } from "./passKind";
import { placement } from "./placement/kind";
import { relief } from "./relief/kind";

/** Every kind of pass there is. */
export const PASS_KINDS = {
  placement,
  exposure,
  "edge-burn": edgeBurn,
  contrast,
  "contrast-mask": contrastMask,
  relief,
} satisfies { [K in MoveKind]: PassKind<K> };

/** The kind of a move. What is found under a move's own kind is of that kind, which the compiler cannot follow over all of them. */
function kindOf(move: Pick<Move, "kind">): PassKind<MoveKind> {
  return PASS_KINDS[move.kind] as PassKind<MoveKind>;
}

/** What a new pass of a kind begins with. */
export function restingMove(kind: MoveKind): Move {
  return PASS_KINDS[kind].resting();
}

/** Whether a pass leaves every tone as it is, so that it need not be computed. */
export function leavesAll({ on, strength, move, blend, zonesOff }: Pass): boolean {
  if (!on || strength === 0 || zonesOff.length === ZONE_COUNT) return true;
  if (blend !== "normal" && blend !== "darken" && blend !== "lighten") return false;
  return kindOf(move).leavesAll(move);
}

/** What a whole pass makes of a tone where its mask is full; undefined where tones alone do not tell. */
export function passCurve(pass: Pass): ZoneCurve | undefined {
  return kindOf(pass.move).curve(pass);
}

/** What a pass does, alone or scaled by a mask; undefined where it does nothing. */
export function stepOf(pass: Pass, isMasked: boolean): Step | undefined {
  return leavesAll(pass) ? undefined : kindOf(pass.move).step(pass, isMasked);
}

/** The stops a move gives to places; undefined for one of a kind that gives none. */
export function placedStops(move: Move): PlacedStops | undefined {
  return kindOf(move).placed?.(move);
}

/** The strokes of a move; undefined where its kind holds none. */
export function strokesOfMove(move: Move): readonly Stroke[] | undefined {
  return kindOf(move).strokes?.of(move);
}

/** A move with others in place of its strokes, or as it is where its kind holds none. */
export function withMoveStrokes(move: Move, replace: (strokes: readonly Stroke[]) => unknown): object {
  const lens = kindOf(move).strokes;
  return lens ? lens.with(move, replace(lens.of(move))) : move;
}
