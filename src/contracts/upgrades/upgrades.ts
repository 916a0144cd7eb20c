import { from1 } from "./from1";
import { from2 } from "./from2";
import { from3 } from "./from3";
import { from4 } from "./from4";
import { from5 } from "./from5";
import { from6 } from "./from6";
import { from7 } from "./from7";
import { from8 } from "./from8";
import { from9 } from "./from9";
import { from10 } from "./from10";
import { isRecord, type Upgrade } from "./upgrade";

/** What an older version lacks, added: each brings a plan from one version to the next, beginning with the first. */
const UPGRADES: readonly Upgrade[] = [from1, from2, from3, from4, from5, from6, from7, from8, from9, from10];

/** A plan of whatever version, up to date. */
export function upgraded(json: unknown): unknown {
  let plan = json;
  while (isRecord(plan) && typeof plan.version === "number") {
    const upgrade = UPGRADES[plan.version - 1];
    if (!upgrade) break;
    plan = { ...upgrade(plan), version: plan.version + 1 };
  }
  return plan;
}
