import type { Shape, Point } from "@/core/region/region";
import type { BenchStore } from "../../state/benchStore";
import { chosenRegion } from "../../state/inPlan";

/** A place under the hand, in long edges, with what the hand holds. */
export interface Touch extends Point {
  /** 0–1; 1 where the device tells none. */
  pressure: number;
  /** How far it may miss what it means, in long edges: some pixels of the screen. */
  near: number;
  shift: boolean;
  alt: boolean;
  ctrl: boolean;
}

/** A shape that is being drawn. */
export interface Drawer {
  move(touches: readonly Touch[]): void;
  finish(): void;
}

/** How the next shape meets those before it. */
export const combineOf = (store: BenchStore) => store.getState().drawing.combine;

/** Takes back what a slip of the hand began. */
export function takeBack(store: BenchStore, before: ReturnType<BenchStore["getState"]>["plan"], why?: string): void {
  store.getState().adjust(() => before);
  store.getState().set({ chosenShape: undefined, ...(why ? { failure: why } : {}) });
}

/** The shape in hand if it is of a kind, else the last of the region that is and is added to it. */
export function openShape<K extends Shape["kind"]>(store: BenchStore, kind: K): Extract<Shape, { kind: K }> | undefined {
  const state = store.getState();
  const shapes = chosenRegion(state)?.shapes ?? [];
  const chosen = shapes.find(({ id }) => id === state.chosenShape);
  const last = shapes.at(-1);
  const found = chosen?.kind === kind ? chosen : last?.kind === kind && last.combine === state.drawing.combine ? last : undefined;
  return found as Extract<Shape, { kind: K }> | undefined;
}

/** The shorter side of the box a way lies in. */
export function extent(way: readonly Point[]): number {
  const span = (of: (point: Point) => number) => {
    let [least, most] = [Infinity, -Infinity];
    for (const point of way) [least, most] = [Math.min(least, of(point)), Math.max(most, of(point))];
    return most - least;
  };
  return Math.min(
    span(({ x }) => x),
    span(({ y }) => y),
  );
}
