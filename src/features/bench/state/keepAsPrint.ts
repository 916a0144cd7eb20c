import { v4 as uuid } from "uuid";
import { PrintSummary } from "@/contracts/api";
import type { Plan } from "@/core/plan/plan";
import { askServer } from "../../shared/askServer";
import type { Unsent } from "./unsentStore";

/**
 * Keeps unsent work as a print of its own, step by step: it begins with the plan the work was begun on. Where that cannot be had, with the
 * plan as it is now. Returns the print's id; undefined where it could not be kept whole.
 */
export async function keepAsPrint(
  pictureId: string,
  unsent: readonly Unsent[],
  planAt: (id: string) => Promise<Plan | undefined>,
  now: Plan,
): Promise<string | undefined> {
  const first = unsent[0] && (await planAt(unsent[0].base));
  const print = await askServer("POST", `/api/pictures/${pictureId}/prints`, { plan: first ?? now });
  if (!print) return undefined;
  const { id, head } = PrintSummary.parse(await print.json());
  if (!first) return id;
  // The same steps under names of their own: what was not among them is where the print begins.
  const names = new Map<string, string>();
  const nameOf = (step: string) => names.get(step) ?? head;
  for (const edit of unsent) {
    const base = nameOf(edit.base);
    if (edit.kind === "step") names.set(edit.id, uuid());
    const sent =
      edit.kind === "step"
        ? await askServer("POST", `/api/prints/${id}/revisions`, { id: nameOf(edit.id), base, label: edit.label, plan: edit.plan })
        : await askServer("PUT", `/api/prints/${id}/head`, { base, to: nameOf(edit.to) });
    if (!sent) return undefined;
  }
  return id;
}
