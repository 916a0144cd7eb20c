import { withEachPass, type Upgrade } from "./upgrade";

/** 3 → 4: passes may be confined to regions and gates. */
export const from3: Upgrade = (plan) => ({ ...plan, regions: [], passes: withEachPass(plan.passes, { region: null, gate: null }) });
