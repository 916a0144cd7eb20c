import type { AnotherMixMove } from "./another-mix/move";
import type { BalanceMove } from "./balance/move";
import type { ColourReturnMove } from "./colour-return/move";
import type { ContrastMove } from "./contrast/move";
import type { ContrastMaskMove } from "./contrast-mask/move";
import type { EdgeBurnMove } from "./edge-burn/move";
import type { ExposureMove } from "./exposure/move";
import type { PlacementMove } from "./placement/move";
import type { ReliefMove } from "./relief/move";
import type { SceneLightMove } from "./scene-light/move";
import type { SharpenMove } from "./sharpen/move";
import type { SoftenMove } from "./soften/move";
import type { SeparationMove } from "./separation/move";
import type { TintMove } from "./tint/move";

/** What passes do to colour, before it is mixed, by their kind. */
export interface ColourMoves {
  "scene-light": SceneLightMove;
  balance: BalanceMove;
  separation: SeparationMove;
}
/** To tones. */
export interface ToneMoves {
  "another-mix": AnotherMixMove;
  placement: PlacementMove;
  exposure: ExposureMove;
  "edge-burn": EdgeBurnMove;
  contrast: ContrastMove;
  "contrast-mask": ContrastMaskMove;
  relief: ReliefMove;
  soften: SoftenMove;
  sharpen: SharpenMove;
}
/** To colour laid on tones. */
export interface ChromaMoves {
  tint: TintMove;
  "colour-return": ColourReturnMove;
}
export type ColourMoveKind = keyof ColourMoves;
export type ToneMoveKind = keyof ToneMoves;
export type ChromaMoveKind = keyof ChromaMoves;
export type MoveKind = ColourMoveKind | ToneMoveKind | ChromaMoveKind;

/** The move of one kind, or of one of some. */
export type MoveOf<K extends MoveKind> = { [P in K]: (ColourMoves & ToneMoves & ChromaMoves)[P] }[K];
/** What a pass may do: one of these. */
export type Move = MoveOf<MoveKind>;
