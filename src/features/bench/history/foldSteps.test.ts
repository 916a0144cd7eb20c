import { expect, test } from "vitest";
import { foldSteps } from "./foldSteps";

/** Steps by their names, "name" on the one before, "name<k" on the k-th; ids are their places. */
function steps(...names: string[]) {
  return names.map((name, i) => {
    const [label, parent = String(i - 1)] = name.split("<");
    return { id: String(i), parent: i === 0 ? null : parent, label: label!, createdAt: new Date(0) };
  });
}
const rowsOf = (revisions: ReturnType<typeof steps>, head: string, ...opened: string[]) =>
  foldSteps(revisions, head, new Set(opened)).map(
    ({ step, count, isOpen }) => `${step.label}${step.id}${count > 1 ? ` ×${count}` : ""}${isOpen ? " open" : ""}`,
  );

test("three steps of a name and more, one on the other, are one row that opens; two are two", () => {
  const history = steps("in", "burn", "burn", "burn", "burn", "mix", "mix");
  expect(rowsOf(history, "6")).toEqual(["mix6", "mix5", "burn4 ×4", "in0"]);
  expect(rowsOf(history, "6", "4")).toEqual(["mix6", "mix5", "burn4 ×4 open", "burn3", "burn2", "burn1", "in0"]);
});

test("where the print stands, and where another way begins, is never folded away", () => {
  const history = steps("in", "burn", "burn", "burn", "burn", "burn");
  expect(rowsOf(history, "3")).toEqual(["burn5", "burn4", "burn3 ×3", "in0"]);
  expect(rowsOf(steps("in", "burn", "burn", "burn", "burn", "burn<2"), "5")).toEqual(["burn5", "burn4", "burn3", "burn2", "burn1", "in0"]);
});

test("every step is told once, folded or open", () => {
  const history = steps("in", ...Array.from({ length: 40 }, (_, i) => (i % 9 < 5 ? "burn" : `s${i}`)));
  const counted = foldSteps(history, "40", new Set(["5"])).reduce((sum, { count, isOpen }) => sum + (isOpen ? 1 : count), 0);
  expect(counted).toBe(history.length);
});
