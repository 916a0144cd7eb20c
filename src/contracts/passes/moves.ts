import type { MoveKind, MoveOf } from "@/core/passes/moves";
import { z } from "zod";
import { AnotherMixMove } from "./anotherMix";
import { BalanceMove } from "./balance";
import { ColourReturnMove } from "./colourReturn";
import { ContrastMove } from "./contrast";
import { ContrastMaskMove } from "./contrastMask";
import { EdgeBurnMove } from "./edgeBurn";
import { ExposureMove } from "./exposure";
import { PlacementMove } from "./placement";
import { ReliefMove } from "./relief";
import { SceneLightMove } from "./sceneLight";
import { SharpenMove } from "./sharpen";
import { SoftenMove } from "./soften";
import { SeparationMove } from "./separation";
import { TintMove } from "./tint";

/** The schema of every kind of move. */
const MOVES = {
  "scene-light": SceneLightMove,
  balance: BalanceMove,
  separation: SeparationMove,
  "another-mix": AnotherMixMove,
  placement: PlacementMove,
  exposure: ExposureMove,
  "edge-burn": EdgeBurnMove,
  contrast: ContrastMove,
  "contrast-mask": ContrastMaskMove,
  relief: ReliefMove,
  soften: SoftenMove,
  sharpen: SharpenMove,
  tint: TintMove,
  "colour-return": ColourReturnMove,
} satisfies { [K in MoveKind]: z.ZodType<MoveOf<K>> };

export const Move = z.discriminatedUnion("kind", [
  MOVES["scene-light"],
  MOVES.balance,
  MOVES.separation,
  MOVES["another-mix"],
  MOVES.placement,
  MOVES.exposure,
  MOVES["edge-burn"],
  MOVES.contrast,
  MOVES["contrast-mask"],
  MOVES.relief,
  MOVES.soften,
  MOVES.sharpen,
  MOVES.tint,
  MOVES["colour-return"],
]);
