import type { ContrastMove } from "./contrast/move";
import type { ContrastMaskMove } from "./contrast-mask/move";
import type { EdgeBurnMove } from "./edge-burn/move";
import type { ExposureMove } from "./exposure/move";
import type { PlacementMove } from "./placement/move";
import type { ReliefMove } from "./relief/move";

/** What a pass may do: one of these. */
export type Move = PlacementMove | ExposureMove | EdgeBurnMove | ContrastMove | ContrastMaskMove | ReliefMove;
export type MoveKind = Move["kind"];
/** The move of one kind. */
export type MoveOf<K extends MoveKind> = Extract<Move, { kind: K }>;
