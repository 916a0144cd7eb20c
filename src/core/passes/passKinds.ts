import type { PlacedStops } from "../steps/placedStops";
import type { Pass } from "./pass";
import type { MixLook } from "../mix/mixLook";
import type { Stroke } from "../brush/stroke";
import type { ColourStep } from "../steps/colourStep";
import type { Step } from "../steps/step";
import { reachTable } from "../steps/reach";
import type { ZoneCurve } from "../steps/zoneCurve";
import { ZONE_COUNT } from "../zones/zone";
import { anotherMix } from "./another-mix/kind";
import { balance } from "./balance/kind";
import { colourReturn } from "./colour-return/kind";
import { contrast } from "./contrast/kind";
import { contrastMask } from "./contrast-mask/kind";
import { edgeBurn } from "./edge-burn/kind";
import { exposure } from "./exposure/kind";
import type { Move, MoveKind, ChromaMoveKind, ColourMoveKind, MoveOf, ToneMoveKind } from "./moves";
import type { AnyKind, ChromaKind, ColourKind, PassKind } from "./passKind";
import { placement } from "./placement/kind";
import { relief } from "./relief/kind";
import { sceneLight } from "./scene-light/kind";
import { sharpen } from "./sharpen/kind";
import { soften } from "./soften/kind";
import { separation } from "./separation/kind";
import { tint } from "./tint/kind";

/** Every kind of pass there is: those of colour, which come before the mix, those of tones, and those that lay colour on tones. */
const COLOUR_KINDS: { readonly [K in ColourMoveKind]: ColourKind<K> } = { "scene-light": sceneLight, balance, separation };
const TONE_KINDS: { readonly [K in ToneMoveKind]: PassKind<K> } = {
  "another-mix": anotherMix,
  placement,
  exposure,
  "edge-burn": edgeBurn,
  contrast,
  "contrast-mask": contrastMask,
  relief,
  soften,
  sharpen,
};
const CHROMA_KINDS: { readonly [K in ChromaMoveKind]: ChromaKind<K> } = { tint, "colour-return": colourReturn };
export const PASS_KINDS: { readonly [K in MoveKind]: AnyKind<K> } = { ...COLOUR_KINDS, ...TONE_KINDS, ...CHROMA_KINDS };

const colourKind = <K extends ColourMoveKind>({ kind }: { kind: K }): ColourKind<K> => COLOUR_KINDS[kind];
const toneKind = <K extends ToneMoveKind>({ kind }: { kind: K }): PassKind<K> => TONE_KINDS[kind];
const chromaKind = <K extends ChromaMoveKind>({ kind }: { kind: K }): ChromaKind<K> => CHROMA_KINDS[kind];
const leaves = <K extends MoveKind>(move: MoveOf<K> & { kind: K }): boolean => PASS_KINDS[move.kind].leavesAll(move);

/** Whether a move acts on colour, and so comes before the mix. */
export function actsOnColour<M extends Pick<Move, "kind">>(move: M): move is M & { kind: ColourMoveKind } {
  return move.kind in COLOUR_KINDS;
}

/** Whether a move lays colour on tones, and so leaves them as they are. */
export function laysColour<M extends Pick<Move, "kind">>(move: M): move is M & { kind: ChromaMoveKind } {
  return move.kind in CHROMA_KINDS;
}

/** Whether a move changes tones, which may meet those beneath in many ways. */
export function actsOnTones<M extends Pick<Move, "kind">>(move: M): move is M & { kind: ToneMoveKind } {
  return move.kind in TONE_KINDS;
}

/** What a new pass of a kind begins with. */
export function restingMove(kind: MoveKind): Move {
  return PASS_KINDS[kind].resting();
}

/** Whether a pass leaves every tone as it is, so that it need not be computed. */
export function leavesAll({ on, strength, move, blend, zonesOff }: Pass): boolean {
  if (!on || strength === 0 || (!actsOnColour(move) && zonesOff.length === ZONE_COUNT)) return true;
  if (actsOnTones(move) && blend !== "normal" && blend !== "darken" && blend !== "lighten") return false;
  return leaves(move);
}

/** What a whole pass makes of a tone where its mask is full; undefined where tones alone do not tell. */
export function passCurve(pass: Pass): ZoneCurve | undefined {
  const { move } = pass;
  if (laysColour(move)) return (zone) => zone;
  return actsOnTones(move) ? toneKind(move).curve({ ...pass, move }) : undefined;
}

/** What a pass does to tones or lays on them, alone or scaled by a mask; undefined where that is nothing. */
export function stepOf(pass: Pass, isMasked: boolean): Step | undefined {
  const { move, strength } = pass;
  if (leavesAll(pass)) return undefined;
  if (laysColour(move)) return { kind: "chroma", laid: chromaKind(move).lays(move), strength, share: reachTable(pass) };
  return actsOnTones(move) ? toneKind(move).step({ ...pass, move }, isMasked) : undefined;
}

/** What a pass does to colour; undefined where it does nothing to it. */
export function colourStepOf(pass: Pass): ColourStep | undefined {
  const { move } = pass;
  return actsOnColour(move) && !leavesAll(pass) ? colourKind(move).colour(move) : undefined;
}

/** The stops a move gives to places; undefined for one of a kind that gives none. */
export function placedStops(move: Move): PlacedStops | undefined {
  return actsOnTones(move) ? toneKind(move).placed?.(move) : undefined;
}

/** The mix that a move holds; undefined where its kind mixes nothing. */
export function mixOfMove(move: Move): MixLook | undefined {
  return actsOnTones(move) ? toneKind(move).mix?.of(move) : undefined;
}

/** A move with its mix changed, or as it is where its kind mixes nothing. */
export function withMoveMix(move: Move, change: Partial<MixLook>): Move {
  return (actsOnTones(move) ? toneKind(move).mix?.with(move, change) : undefined) ?? move;
}

/** The strokes of a move; undefined where its kind holds none. */
export function strokesOfMove(move: Move): readonly Stroke[] | undefined {
  return actsOnTones(move) ? toneKind(move).strokes?.of(move) : undefined;
}

/** A move with others in place of its strokes, or as it is where its kind holds none. */
export function withMoveStrokes(move: Move, replace: (strokes: readonly Stroke[]) => unknown): object {
  if (!actsOnTones(move)) return move;
  const lens = toneKind(move).strokes;
  return lens ? lens.with(move, replace(lens.of(move))) : move;
}
