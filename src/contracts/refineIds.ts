import type { z } from "zod";

/** Refuses a list in which two things have one id. */
export function refineIds(what: string) {
  return (things: { id: string }[], context: z.RefinementCtx): void => {
    const seen = new Set<string>();
    things.forEach(({ id }, i) => {
      if (seen.has(id)) context.addIssue({ code: "custom", path: [i, "id"], message: `another ${what} has this id` });
      seen.add(id);
    });
  };
}
