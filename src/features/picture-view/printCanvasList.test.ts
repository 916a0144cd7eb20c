import { expect, test } from "vitest";
import type { Screen } from "@/engine/messages/messages";
import { withDrawn, withWanted, type PrintCanvas } from "./printCanvasList";

const preview = (name: string): Screen => ({ name, area: "preview", isWhole: true });
const part = (name: string): Screen => ({ name, area: { level: 0, x: 0, y: 0, width: 1, height: 1 }, isWhole: true });
const words = (list: readonly PrintCanvas[]) => list.map(({ screen, isDrawn }) => screen.name + (isDrawn ? "" : "?"));

test("what was drawn stays until what takes its place is drawn; parts lie over the whole", () => {
  let list: readonly PrintCanvas[] = [];
  const steps: string[][] = [];
  const take = (next: readonly PrintCanvas[]) => steps.push(words((list = next)));
  take(withWanted(list, 1, part("a")));
  take(withDrawn(list, 1, part("a")));
  take(withWanted(list, 2, preview("p")));
  take(withDrawn(list, 2, preview("p")));
  take(withWanted(list, 3, part("b")));
  take(withWanted(list, 4, part("c")));
  take(withDrawn(list, 4, part("c")));
  expect(steps).toEqual([["a?"], ["a"], ["p?", "a"], ["p", "a"], ["p", "a", "b?"], ["p", "a", "c?"], ["p", "c"]]);
  expect(list.map(({ id }) => id)).toEqual([2, 4]);
});

test("what is drawn again changes nothing, and takes away what was to take its place", () => {
  const drawn = withDrawn(withWanted([], 5, part("a")), 5, part("a"));
  expect(withDrawn(drawn, 5, part("a"))).toBe(drawn);
  expect(words(withDrawn(withWanted(drawn, 6, part("b")), 5, part("a")))).toEqual(["a"]);
});

test("a canvas wanted, given up and wanted again is another one, though all of it comes at once", () => {
  const first = withWanted(withDrawn(withWanted([], 1, part("a")), 1, part("a")), 2, part("b"));
  const again = withWanted(withDrawn(first, 1, part("a")), 3, part("b"));
  expect(again.map(({ id }) => id)).toEqual([1, 3]);
});
