import type { Move, MoveKind } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { blendWords } from "@/core/blend/blend";
import { anotherMix } from "./another-mix/face";
import { balance } from "./balance/face";
import { colourReturn } from "./colour-return/face";
import { contrast } from "./contrast/face";
import { contrastMask } from "./contrast-mask/face";
import { edgeBurn } from "./edge-burn/face";
import { exposure } from "./exposure/face";
import type { PassFace } from "./passFace";
import { placement } from "./placement/face";
import { relief } from "./relief/face";
import { sceneLight } from "./scene-light/face";
import { sharpen } from "./sharpen/face";
import { soften } from "./soften/face";
import { separation } from "./separation/face";
import { tint } from "./tint/face";

/** The face of every kind of pass, in the order they are offered: those before the mix, then those after it. */
export const PASS_FACES = {
  "scene-light": sceneLight,
  balance,
  separation,
  "another-mix": anotherMix,
  placement,
  exposure,
  "edge-burn": edgeBurn,
  contrast,
  "contrast-mask": contrastMask,
  relief,
  soften,
  sharpen,
  tint,
  "colour-return": colourReturn,
} satisfies { [K in MoveKind]: PassFace<K> };

export const MOVE_KINDS = Object.keys(PASS_FACES) as MoveKind[];

/** The face of a move. What is found under a move's own kind is of that kind, which the compiler cannot follow over all of them. */
export function faceOf({ kind }: Pick<Move, "kind">): PassFace<MoveKind> {
  return PASS_FACES[kind] as unknown as PassFace<MoveKind>;
}

/** What a pass does, as short as it can be said. */
export function passWords({ move, blend }: Pass): string {
  return `${faceOf(move).words(move)}${blend === "normal" ? "" : `, ${blendWords(blend)}`}`;
}
