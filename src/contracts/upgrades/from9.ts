import { withEachPass, withEachShape, type Upgrade } from "./upgrade";

/** 9 → 10: the passes of a set may act through one mask; a likeness may find its borders by colour. */
export const from9: Upgrade = (plan) => ({
  ...plan,
  sets: withEachPass(plan.sets, { region: null, gate: null }),
  regions: withEachShape(plan.regions, "likeness", { edges: "tone" }),
});
