import { isRecord, type Upgrade } from "./upgrade";

/** 7 → 8: the colour a mix reads may be cleaned. */
export const from7: Upgrade = (plan) => ({ ...plan, mix: isRecord(plan.mix) ? { clean: 0, ...plan.mix } : plan.mix });
