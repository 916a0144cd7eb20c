import { capital } from "@/features/shared/capital";
import { snapZone } from "../../scale/snapZone";
import type { PassFace } from "../passFace";
import { pickTint, takeUpPoint, tintWords } from "./tintEdits";
import { TintOnScale } from "./TintOnScale";
import { TintPart } from "./TintPart";

export const tint: PassFace<"tint"> = {
  name: "Tint",
  purpose: "Lay colour on zones: one hue, split tones, or a line of them",
  words: (move) => capital(tintWords(move)),
  Panel: TintPart,
  OnScale: TintOnScale,
  pressScale: (store, { pass }, zone) => takeUpPoint(store, pass, snapZone(zone)),
  pickColour: (store, { pass }, _tool, colour) => pickTint(store, pass, colour),
};
