import { sceneLightFields } from "./fields";
import { restOf } from "../fields";
import { pairTable } from "../../kernels/pairTable";
import { SOFT_KNOTS } from "../../steps/knots";
import type { ColourKind } from "../passKind";
import { SCENE_RADIUS, sceneStops } from "./sceneLight";

export const sceneLight: ColourKind<"scene-light"> = {
  fields: sceneLightFields,
  resting: () => ({ kind: "scene-light", ...restOf(sceneLightFields) }),
  leavesAll: ({ exposure, shadows, lights }) => exposure === 0 && shadows === 0 && lights === 0,
  colour: (move) => ({
    kind: "light",
    flat: move.exposure,
    around:
      move.shadows === 0 && move.lights === 0
        ? undefined
        : { spread: { radius: SCENE_RADIUS, edges: "guide" }, stops: pairTable(SOFT_KNOTS, (tone) => sceneStops(move, tone)) },
  }),
};
