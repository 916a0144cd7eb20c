import { parsePlan } from "@/contracts/plan";
import { CoreError } from "@/core/errors";
import type { Plan } from "@/core/plan/plan";

/** As long as a plan that the server takes. */
const MOST_BYTES = 64 * 1024 ** 2;
/** Faults of a plan that are said. */
const SAID_FAULTS = 3;

/** A plan as the command line reads it too, laid out for people. */
export function planFileOf(plan: Plan): Blob {
  return new Blob([`${JSON.stringify(plan, null, 2)}\n`], { type: "application/json" });
}

/** The plan in a file, of this version or an earlier one; or why there is none, as a sentence. */
export async function readPlanFile(file: Blob): Promise<{ plan: Plan } | { reason: string }> {
  if (file.size > MOST_BYTES) return { reason: "it is longer than any plan." };
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch {
    return { reason: "it is not JSON." };
  }
  try {
    return { plan: parsePlan(json) };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const count = Number(error.details.count);
    const more = count > SAID_FAULTS ? `; and ${count - SAID_FAULTS} more` : "";
    return { reason: `it is no plan that can be used (${error.message.split("\n").slice(0, SAID_FAULTS).join("; ")}${more}).` };
  }
}
