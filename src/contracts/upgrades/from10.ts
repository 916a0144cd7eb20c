import { withEachShape, type Upgrade } from "./upgrade";

/** 10 → 11: what is taken away from a likeness may be told by place; a brush may erase the shapes before it. */
export const from10: Upgrade = (plan) => ({
  ...plan,
  regions: withEachShape(withEachShape(plan.regions, "likeness", { apart: "colour" }), "brush", { beneath: false }),
});
