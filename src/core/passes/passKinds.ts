import type { MixLook } from "../mix/mixLook";
import type { Stroke } from "../brush/stroke";
import type { Move, MoveKind, Pass } from "../plan/plan";
import type { ColourStep } from "../steps/colourStep";
import type { PlacedStops, Step } from "../steps/step";
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
import type { ChromaMoveKind, ColourMoveKind, ToneMoveKind } from "./moves";
import type { ChromaKind, ColourKind, PassKind } from "./passKind";
import { placement } from "./placement/kind";
import { relief } from "./relief/kind";
import { sceneLight } from "./scene-light/kind";
import { sharpen } from "./sharpen/kind";
import { soften } from "./soften/kind";
import { separation } from "./separation/kind";
import { tint } from "./tint/kind";

/** Every kind of pass there is: those of colour, which come before the mix, those of tones, and those that lay colour on tones. */
const COLOUR_KINDS = {
  "scene-light": sceneLight,
  balance,
  separation,
} satisfies { [K in ColourMoveKind]: ColourKind<K> };
const TONE_KINDS = {
  "another-mix": anotherMix,
  placement,
  exposure,
  "edge-burn": edgeBurn,
  contrast,
  "contrast-mask": contrastMask,
  relief,
  soften,
  sharpen,
} satisfies { [K in ToneMoveKind]: PassKind<K> };
const CHROMA_KINDS = {
  tint,
  "colour-return": colourReturn,
} satisfies { [K in ChromaMoveKind]: ChromaKind<K> };
export const PASS_KINDS = { ...COLOUR_KINDS, ...TONE_KINDS, ...CHROMA_KINDS };

// What is found under a move's own kind is of that kind, which the compiler cannot follow over all of them.
const colourKindOf = ({ kind }: Pick<Move, "kind">) =>
  (COLOUR_KINDS as Partial<Record<MoveKind, unknown>>)[kind] as ColourKind<ColourMoveKind> | undefined;
const toneKindOf = ({ kind }: Pick<Move, "kind">) =>
  (TONE_KINDS as Partial<Record<MoveKind, unknown>>)[kind] as PassKind<ToneMoveKind> | undefined;
const chromaKindOf = ({ kind }: Pick<Move, "kind">) =>
  (CHROMA_KINDS as Partial<Record<MoveKind, unknown>>)[kind] as ChromaKind<ChromaMoveKind> | undefined;
const kindOf = (move: Pick<Move, "kind">) => (colourKindOf(move) ?? toneKindOf(move) ?? chromaKindOf(move))!;

/** Whether a move acts on colour, and so comes before the mix. */
export function actsOnColour(move: Pick<Move, "kind">): boolean {
  return colourKindOf(move) !== undefined;
}

/** Whether a move lays colour on tones, and so leaves them as they are. */
export function laysColour(move: Pick<Move, "kind">): boolean {
  return chromaKindOf(move) !== undefined;
}

/** Whether a move changes tones, which may meet those beneath in many ways. */
export function actsOnTones(move: Pick<Move, "kind">): boolean {
  return toneKindOf(move) !== undefined;
}

/** What a new pass of a kind begins with. */
export function restingMove(kind: MoveKind): Move {
  return PASS_KINDS[kind].resting();
}

/** Whether a pass leaves every tone as it is, so that it need not be computed. */
export function leavesAll({ on, strength, move, blend, zonesOff }: Pass): boolean {
  if (!on || strength === 0 || (!actsOnColour(move) && zonesOff.length === ZONE_COUNT)) return true;
  if (actsOnTones(move) && blend !== "normal" && blend !== "darken" && blend !== "lighten") return false;
  return kindOf(move).leavesAll(move as never);
}

/** What a whole pass makes of a tone where its mask is full; undefined where tones alone do not tell. */
export function passCurve(pass: Pass): ZoneCurve | undefined {
  return laysColour(pass.move) ? (zone) => zone : toneKindOf(pass.move)?.curve(pass as never);
}

/** What a pass does to tones or lays on them, alone or scaled by a mask; undefined where that is nothing. */
export function stepOf(pass: Pass, isMasked: boolean): Step | undefined {
  if (leavesAll(pass)) return undefined;
  const laid = chromaKindOf(pass.move)?.lays(pass.move as never);
  if (laid) return { kind: "chroma", laid, strength: pass.strength, share: reachTable(pass) };
  return toneKindOf(pass.move)?.step(pass as never, isMasked);
}

/** What a pass does to colour; undefined where it does nothing to it. */
export function colourStepOf(pass: Pass): ColourStep | undefined {
  return leavesAll(pass) ? undefined : colourKindOf(pass.move)?.colour(pass.move as never);
}

/** The stops a move gives to places; undefined for one of a kind that gives none. */
export function placedStops(move: Move): PlacedStops | undefined {
  return toneKindOf(move)?.placed?.(move as never);
}

/** The mix that a move holds; undefined where its kind mixes nothing. */
export function mixOfMove(move: Move): MixLook | undefined {
  return toneKindOf(move)?.mix?.of(move as never);
}

/** A move with its mix changed, or as it is where its kind mixes nothing. */
export function withMoveMix(move: Move, change: Partial<MixLook>): Move {
  return toneKindOf(move)?.mix?.with(move as never, change) ?? move;
}

/** The strokes of a move; undefined where its kind holds none. */
export function strokesOfMove(move: Move): readonly Stroke[] | undefined {
  return toneKindOf(move)?.strokes?.of(move as never);
}

/** A move with others in place of its strokes, or as it is where its kind holds none. */
export function withMoveStrokes(move: Move, replace: (strokes: readonly Stroke[]) => unknown): object {
  const lens = toneKindOf(move)?.strokes;
  return lens ? lens.with(move as never, replace(lens.of(move as never))) : move;
}
