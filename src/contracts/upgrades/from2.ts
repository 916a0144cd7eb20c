import { withEachPass, type Upgrade } from "./upgrade";

/** 2 → 3: passes have zones switched off and may be tied into sets. */
export const from2: Upgrade = (plan) => ({ ...plan, sets: [], passes: withEachPass(plan.passes, { zonesOff: [], set: null }) });
