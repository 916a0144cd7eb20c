import type { RevisionSummary } from "@/contracts/api";

/** A row of the history: one step, or a run of steps of one name, told by its newest. */
export interface StepRow {
  step: RevisionSummary;
  /** Steps of the run, this one among them; 1 where it stands alone. */
  count: number;
  /** Whether the others of its run follow in rows of their own. */
  isOpen: boolean;
}

/** Fewer steps of one name than this stand each for itself. */
const LEAST_RUN = 3;

/**
 * The history in rows, newest first. A run is of steps of one name, each made on the one before it, in which the print does not stand and
 * no other way begins; `opened` holds the newest step of those that are shown in full.
 */
export function foldSteps(revisions: readonly RevisionSummary[], head: string, opened: ReadonlySet<string>): StepRow[] {
  const ways = new Map<string, number>();
  for (const { parent } of revisions) if (parent) ways.set(parent, (ways.get(parent) ?? 0) + 1);
  const goesOn = (older: RevisionSummary, newer: RevisionSummary) =>
    newer.parent === older.id && newer.label === older.label && older.id !== head && ways.get(older.id) === 1;
  const rows: StepRow[] = [];
  for (let end = revisions.length; end > 0;) {
    let first = end - 1;
    while (first > 0 && goesOn(revisions[first - 1]!, revisions[first]!)) first--;
    const run = revisions.slice(first, end).reverse();
    const [newest, ...others] = run;
    const isFolded = run.length >= LEAST_RUN && !opened.has(newest!.id);
    rows.push({ step: newest!, count: run.length >= LEAST_RUN ? run.length : 1, isOpen: run.length >= LEAST_RUN && !isFolded });
    if (!isFolded) rows.push(...others.map((step) => ({ step, count: 1, isOpen: false })));
    end = first;
  }
  return rows;
}
