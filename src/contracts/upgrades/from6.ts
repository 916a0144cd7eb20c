import type { Upgrade } from "./upgrade";

/** 6 → 7: the print may be cut out of its picture. */
export const from6: Upgrade = (plan) => ({ ...plan, frame: { turns: 0, degrees: 0, mirrored: false, crop: null } });
