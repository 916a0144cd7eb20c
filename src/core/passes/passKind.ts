import type { PlacedStops } from "../steps/placedStops";
import type { PassOf } from "./pass";
import type { Fields } from "./fields";
import type { MixLook } from "../mix/mixLook";
import type { Stroke } from "../brush/stroke";
import type { MoveKind, MoveOf, ChromaMoveKind, ColourMoveKind, ToneMoveKind } from "./moves";
import type { ColourStep } from "../steps/colourStep";
import type { LaidChroma, Step } from "../steps/step";
import type { ZoneCurve } from "../steps/zoneCurve";

export interface AnyKind<K extends MoveKind> {
  /** Its plain numbers. */
  fields: Fields<MoveOf<K>>;
  /** What a new one begins with. */
  resting(): MoveOf<K>;
  /** Whether a move leaves everything as it is. */
  leavesAll(move: MoveOf<K>): boolean;
}

/** All that others must know of a kind of pass that acts on colour. */
export interface ColourKind<K extends ColourMoveKind> extends AnyKind<K> {
  /** What a pass of it does where its mask is full. */
  colour(move: MoveOf<K>): ColourStep;
}

/** All that others must know of a kind of pass that lays colour on tones, which stay. */
export interface ChromaKind<K extends ChromaMoveKind> extends AnyKind<K> {
  /** What a pass of it lays where its mask is full. */
  lays(move: MoveOf<K>): LaidChroma;
}

/** All that others must know of a kind of pass that acts on tones. */
export interface PassKind<K extends ToneMoveKind> extends AnyKind<K> {
  /**
   * What a whole pass makes of tones where its mask is full: move, blend, strength, gate, zones switched off; undefined where tones alone
   * do not tell.
   */
  curve(pass: PassOf<K>): ZoneCurve | undefined;
  /** What a pass that does anything does, alone or scaled by a mask. */
  step(pass: PassOf<K>, isMasked: boolean): Step;
  /** What it gives to places; absent where it gives stops to none. */
  placed?(move: MoveOf<K>): PlacedStops;
  /** The mix a move holds; absent where it mixes nothing. */
  mix?: {
    of(move: MoveOf<K>): MixLook;
    with(move: MoveOf<K>, change: Partial<MixLook>): MoveOf<K>;
  };
  /** The strokes a move holds, of which there may be thousands; absent where it holds none. */
  strokes?: {
    of(move: MoveOf<K>): readonly Stroke[];
    /** The move with others in their place; what they are is the caller's affair. */
    with<S>(move: MoveOf<K>, strokes: S): Omit<MoveOf<K>, "strokes"> & { strokes: S };
  };
}
