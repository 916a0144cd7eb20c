import { expect, test } from "vitest";
import type { Screen } from "@/engine/messages";
import { withDrawn, withWanted, type PrintCanvas } from "./printCanvasList";

const preview = (name: string): Screen => ({ name, area: "preview", isWhole: true });
const part = (name: string): Screen => ({ name, area: { level: 0, x: 0, y: 0, width: 1, height: 1 }, isWhole: true });
const words = (list: readonly PrintCanvas[]) => list.map(({ screen, isDrawn }) => screen.name + (isDrawn ? "" : "?"));

test("what was drawn stays until what takes its place is drawn; parts lie over the whole", () => {
  let list: readonly PrintCanvas[] = [];
  const steps: string[][] = [];
  const take = (next: readonly PrintCanvas[]) => steps.push(words((list = next)));
  take(withWanted(list, part("a")));
  take(withDrawn(list, part("a")));
  take(withWanted(list, preview("p")));
  take(withDrawn(list, preview("p")));
  take(withWanted(list, part("b")));
  take(withWanted(list, part("c")));
  take(withDrawn(list, part("c")));
  expect(steps).toEqual([["a?"], ["a"], ["p?", "a"], ["p", "a"], ["p", "a", "b?"], ["p", "a", "c?"], ["p", "c"]]);
  expect(new Set(list.map(({ id }) => id)).size).toBe(2);
});

test("what is drawn again changes nothing, and takes away what was to take its place", () => {
  const drawn = withDrawn(withWanted([], part("a")), part("a"));
  expect(withDrawn(drawn, part("a"))).toBe(drawn);
  expect(words(withDrawn(withWanted(drawn, part("b")), part("a")))).toEqual(["a"]);
});
