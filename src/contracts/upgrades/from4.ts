import { withEachMove, type Upgrade } from "./upgrade";

/** 4 → 5: what is painted may be softened and limited as a whole. */
export const from4: Upgrade = (plan) => ({ ...plan, passes: withEachMove(plan.passes, "exposure", { soften: 0, limit: null }) });
