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

/** What a pass may do: one of these. */
export type Move = ColourMove | ToneMove | ChromaMove;
/** To colour, before it is mixed. */
type ColourMove = SceneLightMove | BalanceMove | SeparationMove;
/** To tones. */
type ToneMove =
  AnotherMixMove | PlacementMove | ExposureMove | EdgeBurnMove | ContrastMove | ContrastMaskMove | ReliefMove | SoftenMove | SharpenMove;
/** To colour laid on tones. */
type ChromaMove = TintMove | ColourReturnMove;
export type ColourMoveKind = ColourMove["kind"];
export type ToneMoveKind = ToneMove["kind"];
export type ChromaMoveKind = ChromaMove["kind"];
export type MoveKind = Move["kind"];
/** The move of one kind. */
export type MoveOf<K extends MoveKind> = Extract<Move, { kind: K }>;
