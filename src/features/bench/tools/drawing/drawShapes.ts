import { v4 as uuid } from "uuid";
import { MOST_CORNERS, type Point, type Shape } from "@/core/region/region";
import type { BenchStore } from "../../state/benchStore";
import { chosenRegion } from "../../state/inPlan";
import { addShape, adjustShape, regionName } from "../../regions/regionEdits";
import { combineOf, extent, takeBack, type Drawer, type Touch } from "./drawer";
import { lasso } from "./lasso";

/** Shapes smaller than this are slips of the hand. */
export const LEAST_SIZE = 0.004;
const FEATHER = 0.02;

/** Draws a freehand loop. */
export function drawLoop(at: Touch, store: BenchStore): Drawer {
  const before = store.getState().plan;
  const way = lasso(at);
  const id = uuid();
  let isLaid = false;
  return {
    move(touches) {
      way.add(touches);
      const outline = way.points().map((point) => ({ ...point, smooth: true }));
      if (outline.length < 3) return;
      const shape: Shape = { id, combine: combineOf(store), kind: "outline", corners: outline, inner: FEATHER, outer: FEATHER };
      if (isLaid) adjustShape(store, id, () => shape);
      else isLaid = addShape(store, shape);
    },
    finish() {
      if (extent(way.points()) < LEAST_SIZE || !isLaid)
        return takeBack(store, before, "That loop was too small to hold anything. Draw it round what is meant.");
      store.getState().commit(`Loop in ${regionName(store)}`);
    },
  };
}

export const POLYGON_IS_FULL = `A polygon holds ${MOST_CORNERS} corners. Close it with Enter.`;

/** How near to a corner a press means it, in long edges: to the first, or to the one set last. */
const NEAR_FIRST = 0.012;
const NEAR_LAST = 0.002;

/** A press adds a corner; one near the first, or a second one on the last, closes the polygon. */
export function addCorner(at: Touch, store: BenchStore): void {
  const { drawing, set } = store.getState();
  const first = drawing.corners[0];
  const last = drawing.corners.at(-1);
  const isNear = (corner: Point | undefined, away: number) => corner && Math.hypot(corner.x - at.x, corner.y - at.y) < away;
  if (isNear(last, NEAR_LAST) && drawing.corners.length < 3) return;
  if (drawing.corners.length >= 3 && (isNear(first, NEAR_FIRST) || isNear(last, NEAR_LAST))) return closePolygon(store, at.shift);
  if (drawing.corners.length >= MOST_CORNERS) return set({ failure: POLYGON_IS_FULL });
  set({ drawing: { ...drawing, corners: [...drawing.corners, { x: at.x, y: at.y, smooth: !at.alt }] } });
}

/** Makes a shape of the corners drawn so far, and puts the tool down unless it is kept. */
export function closePolygon(store: BenchStore, keepsTool = false): void {
  const { drawing, set } = store.getState();
  if (drawing.corners.length === 0) return;
  if (drawing.corners.length < 3) return set({ failure: "A polygon needs three corners. Add more, or let go of it with Esc." });
  const shape: Shape = {
    id: uuid(),
    combine: drawing.combine,
    kind: "outline",
    corners: [...drawing.corners],
    inner: FEATHER,
    outer: FEATHER,
  };
  set({ drawing: { ...drawing, corners: [] } });
  if (!addShape(store, shape)) return;
  store.getState().commit(`Polygon in ${regionName(store)}`);
  if (!keepsTool) store.getState().putDown();
}

/** Draws an oval from its middle. */
export function drawOval(at: Touch, store: BenchStore): Drawer {
  const before = store.getState().plan;
  const id = uuid();
  let isLaid = false;
  return {
    move(touches) {
      const { x, y, shift } = touches.at(-1)!;
      let [across, down] = [Math.abs(x - at.x), Math.abs(y - at.y)];
      if (shift) across = down = Math.hypot(across, down);
      const feather = Math.min(across, down) / 4;
      const shape: Shape = {
        id,
        combine: combineOf(store),
        kind: "oval",
        x: at.x,
        y: at.y,
        across,
        down,
        turnDeg: 0,
        inner: feather,
        outer: feather,
      };
      if (isLaid) adjustShape(store, id, () => shape);
      else isLaid = addShape(store, shape);
    },
    finish() {
      const shape = chosenRegion(store.getState())?.shapes.find((other) => other.id === id);
      if (shape?.kind !== "oval" || Math.min(shape.across, shape.down) < LEAST_SIZE) {
        return takeBack(store, before, "Drag from the middle of the oval to its edge.");
      }
      store.getState().commit(`Oval in ${regionName(store)}`);
    },
  };
}

/** Draws a gradient from where it acts fully to where it acts no more. */
export function drawGradient(at: Touch, store: BenchStore): Drawer {
  const before = store.getState().plan;
  const id = uuid();
  let isLaid = false;
  let length = 0;
  return {
    move(touches) {
      const to = turnedToEighth(at, touches.at(-1)!);
      length = Math.hypot(to.x - at.x, to.y - at.y);
      const shape: Shape = { id, combine: combineOf(store), kind: "gradient", from: { x: at.x, y: at.y }, to, twoSided: false };
      if (isLaid) adjustShape(store, id, () => shape);
      else isLaid = addShape(store, shape);
    },
    finish() {
      if (length < LEAST_SIZE) return takeBack(store, before, "Drag from where it is to act fully to where it is to act no more.");
      store.getState().commit(`Gradient in ${regionName(store)}`);
    },
  };
}

/** With Shift a line keeps to level, upright or the diagonals. */
function turnedToEighth(from: Point, { x, y, shift }: Touch): Point {
  if (!shift) return { x, y };
  const [dx, dy] = [x - from.x, y - from.y];
  const turn = (Math.round((4 * Math.atan2(dy, dx)) / Math.PI) * Math.PI) / 4;
  const length = dx * Math.cos(turn) + dy * Math.sin(turn);
  return { x: from.x + length * Math.cos(turn), y: from.y + length * Math.sin(turn) };
}
