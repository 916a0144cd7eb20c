import { isRecord, type Upgrade } from "./upgrade";

/** 8 → 9: dust and scratches of the picture may be covered; a mix has a strength, and its weights may be off. */
export const from8: Upgrade = (plan) => ({
  ...plan,
  spots: [],
  mix: isRecord(plan.mix) ? { strength: 1, weightsOn: true, ...plan.mix } : plan.mix,
});
