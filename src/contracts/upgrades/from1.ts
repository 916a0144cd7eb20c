import { withEachPass, type Upgrade } from "./upgrade";

/** 1 → 2: passes have a blend. */
export const from1: Upgrade = (plan) => ({ ...plan, passes: withEachPass(plan.passes, { blend: "normal" }) });
