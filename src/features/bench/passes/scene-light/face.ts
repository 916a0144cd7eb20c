import { formatStops } from "@/core/zones/zone";
import type { PassFace } from "../passFace";
import { BEFORE_THE_MIX } from "../colourWords";
import { SceneLightPart } from "./SceneLightPart";

const PARTS = ["exposure", "shadows", "lights"] as const;

export const sceneLight: PassFace<"scene-light"> = {
  name: "Scene light",
  purpose: "Light the scene otherwise: exposure, its shadows, its lights",
  words: (move) =>
    PARTS.filter((part) => move[part] !== 0)
      .map((part) => (part === "exposure" ? formatStops(move.exposure) : `${part} ${formatStops(move[part])}`))
      .join(", ") || "As found",
  Panel: SceneLightPart,
  spreads: BEFORE_THE_MIX,
};
