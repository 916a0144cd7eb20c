import { reliefFields } from "./fields";
import { restOf } from "../fields";
import type { PassOf } from "../pass";
import { pairTable } from "../../kernels/pairTable";
import { SLICED_REACH } from "../../spatial/slicedBase";
import { SOFT_KNOTS } from "../../steps/knots";
import type { SurroundingsStep } from "../../steps/step";
import { ALL, blended, REACHES_ALL, throughReach } from "../../steps/stopsThrough";
import type { PassKind } from "../passKind";
import { oddsOf, RELIEF_SIZES, reliefShares } from "./relief";

export const relief: PassKind<"relief"> = {
  fields: reliefFields,
  // A new one begins where it can just be seen.
  resting: () => ({ kind: "relief", ...restOf(reliefFields), medium: 0.3 }),
  leavesAll: (move) => RELIEF_SIZES.every(({ name }) => move[name] === 0),
  curve: () => undefined,
  step,
};

function step(pass: PassOf<"relief">): SurroundingsStep {
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  const { own, around } = reliefShares(pass.move);
  const stops = (share: number) => pairTable(SOFT_KNOTS, (tone) => gain * share * oddsOf(tone));
  const most = gain * mostStops(around);
  return {
    kind: "surroundings",
    own: own === 0 ? undefined : stops(own),
    around: RELIEF_SIZES.flatMap(({ radius }, i) =>
      around[i] === 0 ? [] : [{ spread: { radius, edges: "tone" as const }, stops: stops(around[i]!) }],
    ),
    through: isNormal ? throughReach(pass, most) : ALL,
    blended: blended(pass, REACHES_ALL, most),
  };
}

/** The most stops there can be: each share of how far surroundings can lie from a place in odds, where that is farthest. */
function mostStops(shares: readonly number[]): number {
  return shares.reduce((most, share) => most + Math.abs(share), 0) * (oddsOf(SLICED_REACH) - oddsOf(0));
}
