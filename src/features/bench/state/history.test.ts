import { expect, test } from "vitest";
import { pathTo, redoTarget, undoTarget, withStep, type History } from "./history";

const start: History = { revisions: [{ id: "a", parent: null, label: "As brought in", createdAt: new Date(0) }], head: "a" };
const step = (history: History, id: string) => withStep(history, { id, label: id });
const at = (history: History, head: string): History => ({ ...history, head });

test("undo leads to where a step was made from, redo to the newest made from here", () => {
  const branched = step(at(step(step(start, "b"), "c"), "b"), "d");
  expect(undoTarget(branched)?.id).toBe("b");
  expect(redoTarget(at(branched, "b"))?.id).toBe("d");
  expect(undoTarget(start)).toBeUndefined();
  expect(redoTarget(branched)).toBeUndefined();
});

test("working on from an older step keeps the way not taken", () => {
  const branched = step(at(step(step(start, "b"), "c"), "b"), "d");
  expect(branched.revisions.map(({ id }) => id)).toEqual(["a", "b", "c", "d"]);
  expect([...pathTo(branched)].toSorted()).toEqual(["a", "b", "d"]);
});

test("the path holds what a redo would bring back", () => {
  const line = at(step(step(start, "b"), "c"), "a");
  expect([...pathTo(line)].toSorted()).toEqual(["a", "b", "c"]);
});
