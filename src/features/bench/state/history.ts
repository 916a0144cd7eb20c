import type { RevisionSummary } from "@/contracts/api";

/** A print's steps, oldest first, and the one it stands at. */
export interface History {
  revisions: readonly RevisionSummary[];
  head: string;
}

/** Where undo leads: the step the head was made from. */
export function undoTarget({ revisions, head }: History): RevisionSummary | undefined {
  const parent = revisions.find((revision) => revision.id === head)?.parent;
  return revisions.find((revision) => revision.id === parent);
}

/** Where redo leads: the newest step made from the head. */
export function redoTarget({ revisions, head }: History): RevisionSummary | undefined {
  return revisions.findLast((revision) => revision.parent === head);
}

/** The history with a new step made from the head. */
export function withStep({ revisions, head }: History, step: { id: string; label: string }): History {
  return { revisions: [...revisions, { ...step, parent: head, createdAt: new Date() }], head: step.id };
}

/** The history without one of its steps: those made from it stand on what it stood on. */
export function withoutStep({ revisions, head }: History, id: string): History {
  const parent = revisions.find((revision) => revision.id === id)?.parent;
  if (parent === undefined) return { revisions, head };
  const left = revisions.filter((revision) => revision.id !== id).map((each) => (each.parent === id ? { ...each, parent } : each));
  return { revisions: left, head: head === id && parent !== null ? parent : head };
}

/** The steps that led to the head, and those a redo would lead on to; all others are ways set aside. */
export function pathTo({ revisions, head }: History): Set<string> {
  const parents = new Map(revisions.map(({ id, parent }) => [id, parent]));
  const newest = new Map(revisions.map(({ id, parent }) => [parent, id]));
  const path = new Set<string>();
  for (let id: string | null | undefined = head; id; id = parents.get(id)) path.add(id);
  for (let next = newest.get(head); next; next = newest.get(next)) path.add(next);
  return path;
}
