import { softenFields } from "./fields";
import { restOf } from "../fields";
import type { PassOf } from "../pass";
import { pairTable } from "../../kernels/pairTable";
import { SOFT_KNOTS } from "../../steps/knots";
import type { SurroundingsStep } from "../../steps/step";
import { ALL, blended, REACHES_ALL, throughReach } from "../../steps/stopsThrough";
import type { PassKind } from "../passKind";
import { stopsOfTone } from "./soften";

export const soften: PassKind<"soften"> = {
  fields: softenFields,
  // A new one begins as a breath.
  resting: () => ({ kind: "soften", ...restOf(softenFields), spreads: "lights" }),
  leavesAll: () => false,
  curve: () => undefined,
  step,
};

/**
 * Stops that bring each tone to that of its surroundings: by strength some of the way, or all of it and then blended. Lights spread by
 * keeping the lighter of both.
 */
function step(pass: PassOf<"soften">): SurroundingsStep {
  const { radius, spreads } = pass.move;
  const mode = pass.blend === "normal" && spreads === "lights" ? "lighten" : pass.blend;
  const isNormal = mode === "normal";
  const share = isNormal ? Math.min(pass.strength, 1) : 1;
  const most = 2 * stopsOfTone(1);
  return {
    kind: "surroundings",
    own: pairTable(SOFT_KNOTS, (tone) => -share * stopsOfTone(tone)),
    around: [{ spread: { radius, edges: "none" }, stops: pairTable(SOFT_KNOTS, (tone) => share * stopsOfTone(tone)) }],
    through: isNormal ? throughReach(pass, most) : ALL,
    blended: blended({ ...pass, blend: mode }, REACHES_ALL, most),
  };
}
