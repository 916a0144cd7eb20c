import { v4 as uuid } from "uuid";
import { movedStroke, strokeAt, withStrokes } from "@/core/exposure/editStrokes";
import type { ExposureStroke } from "@/core/exposure/exposure";
import { simplifyPath } from "@/core/brush/simplifyPath";
import { MOST_PATH_POINTS, packPath, unpackPath, type Brush, type PathPoint, type Stroke } from "@/core/brush/stroke";
import {
  LEAST_TOLERANCE,
  MOST_TOLERANCE,
  MOST_CORNERS,
  MOST_STROKES,
  type BrushShape,
  type LikenessShape,
  type Point,
  type Shape,
} from "@/core/region/region";
import { chosenPass, chosenRegion, isExposing, withMove, type BenchStore, type DrawingTool } from "./benchStore";
import { LEAST_BRUSH, sizeBrush } from "./brushSize";
import { withGate } from "./gatePulls";
import { addShape, adjustShape, regionName } from "./regionEdits";

/** A place under the hand, in long edges, with what the hand holds. */
export interface Touch extends Point {
  /** 0–1; 1 where the device tells none. */
  pressure: number;
  shift: boolean;
  alt: boolean;
  ctrl: boolean;
}

/** A shape that is being drawn. */
export interface Drawer {
  move(touches: readonly Touch[]): void;
  finish(): void;
}

/** A loop's corners stay this near to where the hand went, in long edges. */
const LOOP_TOLERANCE = 0.0025;
/** A stroke's way does, so that nothing is lost that could be seen. */
const STROKE_TOLERANCE = 0.0004;
/** Shapes smaller than this are slips of the hand. */
const LEAST_SIZE = 0.004;
/** Likeness is asked again after this much of a sweep. */
const TOUCH_EVERY = 0.006;
const FEATHER = 0.02;

/** Begins to draw with a tool; undefined where a press is all there is to it. */
export function beginDrawing(tool: DrawingTool, at: Touch, store: BenchStore): Drawer | undefined {
  switch (tool) {
    case "loop":
      return drawLoop(at, store);
    case "polygon":
      addCorner(at, store);
      return undefined;
    case "oval":
      return drawOval(at, store);
    case "gradient":
      return drawGradient(at, store);
    case "brush":
      return paint(at, store);
    case "likeness":
      return sweep(at, store);
    case "repair":
      return repair(at, store);
    case "dodge":
    case "burn":
      return expose(at, store, tool === "burn");
    case "pick-strokes":
      return pickStroke(at, store);
  }
}

const combineOf = (store: BenchStore) => store.getState().drawing.combine;

/** Takes back what a slip of the hand began. */
function takeBack(store: BenchStore, before: ReturnType<BenchStore["getState"]>["plan"], why?: string): void {
  store.getState().adjust(() => before);
  store.getState().set({ chosenShape: undefined, ...(why ? { failure: why } : {}) });
}

function drawLoop(at: Touch, store: BenchStore): Drawer {
  const before = store.getState().plan;
  const way: PathPoint[] = [{ x: at.x, y: at.y, pressure: 1 }];
  const id = uuid();
  let isLaid = false;
  const corners = () => {
    for (let tolerance = LOOP_TOLERANCE; ; tolerance *= 1.5) {
      const kept = simplifyPath(way, tolerance);
      if (kept.length <= MOST_CORNERS) return kept.map(({ x, y }) => ({ x, y, smooth: true }));
    }
  };
  return {
    move(touches) {
      way.push(...touches.map(({ x, y }) => ({ x, y, pressure: 1 })));
      const outline = corners();
      if (outline.length < 3) return;
      const shape: Shape = { id, combine: combineOf(store), kind: "outline", corners: outline, inner: FEATHER, outer: FEATHER };
      if (isLaid) adjustShape(store, id, () => shape);
      else isLaid = addShape(store, shape);
    },
    finish() {
      if (extent(way) < LEAST_SIZE || !isLaid)
        return takeBack(store, before, "That loop was too small to hold anything. Draw it round what is meant.");
      store.getState().commit(`Loop in ${regionName(store)}`);
    },
  };
}

/** A press adds a corner; one near the first closes the polygon. */
function addCorner(at: Touch, store: BenchStore): void {
  const { drawing, set } = store.getState();
  const first = drawing.corners[0];
  if (first && drawing.corners.length >= 3 && Math.hypot(first.x - at.x, first.y - at.y) < 0.012) return closePolygon(store);
  if (drawing.corners.length >= MOST_CORNERS) return set({ failure: `A polygon holds ${MOST_CORNERS} corners. Close it with Enter.` });
  set({ drawing: { ...drawing, corners: [...drawing.corners, { x: at.x, y: at.y, smooth: !at.alt }] } });
}

/** Makes a shape of the corners drawn so far. */
export function closePolygon(store: BenchStore): void {
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
  if (addShape(store, shape)) store.getState().commit(`Polygon in ${regionName(store)}`);
}

function drawOval(at: Touch, store: BenchStore): Drawer {
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

function drawGradient(at: Touch, store: BenchStore): Drawer {
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

/** The shape in hand if it is of a kind, else the last of the region that is and is added to it. */
function openShape<K extends Shape["kind"]>(store: BenchStore, kind: K): Extract<Shape, { kind: K }> | undefined {
  const state = store.getState();
  const shapes = chosenRegion(state)?.shapes ?? [];
  const chosen = shapes.find(({ id }) => id === state.chosenShape);
  const last = shapes.at(-1);
  const found = chosen?.kind === kind ? chosen : last?.kind === kind && last.combine === state.drawing.combine ? last : undefined;
  return found as Extract<Shape, { kind: K }> | undefined;
}

/** Lays a stroke on a brushed area; with Shift a straight one from where the last ended. Alt takes away. */
function paint(at: Touch, store: BenchStore): Drawer | undefined {
  const open = openShape(store, "brush");
  const shape: BrushShape = open ?? { id: uuid(), combine: combineOf(store), kind: "brush", x: 0, y: 0, strokes: [] };
  if (!open && !addShape(store, shape)) return undefined;
  store.getState().set({ chosenShape: shape.id });
  return layStrokes<Stroke>(at, store, {
    before: shape.strokes,
    moved: shape,
    brush: store.getState().drawing,
    dress: (stroke) => stroke,
    lay: (strokes) => adjustShape(store, shape.id, (now) => (now.kind === "brush" ? { ...now, strokes } : now)),
    label: (isErasing) => `${isErasing ? "Erased" : "Brushed"} in ${regionName(store)}`,
  });
}

/** Lays a stroke on the gate of the pass in hand: more is let through there, or less. */
function repair(at: Touch, store: BenchStore): Drawer | undefined {
  const pass = chosenPass(store.getState())?.pass;
  if (!pass?.gate) {
    store.getState().set({ failure: "There is no gate to repair in this pass. Choose its tones first." });
    return undefined;
  }
  const { gate } = pass;
  return layStrokes<Stroke>(at, store, {
    before: gate.repair,
    moved: { x: 0, y: 0 },
    brush: store.getState().drawing,
    dress: (stroke) => stroke,
    lay: (strokes) => store.getState().adjust((plan) => withGate(plan, pass.id, { ...gate, repair: strokes })),
    label: (isErasing) => `Gate of ${pass.name} lets ${isErasing ? "less" : "more"} through`,
  });
}

/** Dodges, or burns: Alt brings both back to nothing. */
function expose(at: Touch, store: BenchStore, burns: boolean): Drawer | undefined {
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure") {
    store.getState().set({ failure: "Dodging and burning is done in an exposure pass. Choose one on the ribbon, or add one." });
    return undefined;
  }
  const { move } = pass;
  const { ceiling, ...brush } = store.getState().exposing;
  return layStrokes<ExposureStroke>(at, store, {
    before: move.strokes,
    moved: { x: 0, y: 0 },
    brush,
    dress: (stroke) => ({ ...stroke, burns, ceiling }),
    lay: (strokes) => store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, strokes })),
    label: (isErasing) => `${isErasing ? "Brought back" : burns ? "Burned" : "Dodged"} in ${pass.name}`,
  });
}

/** Picks the stroke touched, with Ctrl one more or one fewer; a drag moves all that are picked. */
function pickStroke(at: Touch, store: BenchStore): Drawer | undefined {
  const { pickedStrokes, set, adjust, commit } = store.getState();
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure") return undefined;
  const { move } = pass;
  const touched = strokeAt(move.strokes, at);
  if (touched === undefined) {
    set({ pickedStrokes: [] });
    return undefined;
  }
  const isPicked = pickedStrokes.includes(touched);
  const others = pickedStrokes.filter((index) => index !== touched);
  const picked = at.ctrl ? (isPicked ? others : [...others, touched]) : isPicked ? pickedStrokes : [touched];
  set({ pickedStrokes: picked });
  return {
    move(touches) {
      const { x, y } = touches.at(-1)!;
      const strokes = withStrokes(move.strokes, new Set(picked), (stroke) => movedStroke(stroke, x - at.x, y - at.y));
      adjust((plan) => withMove(plan, pass.id, { ...move, strokes }));
    },
    finish: () => commit(`${picked.length === 1 ? "Stroke" : "Strokes"} moved in ${pass.name}`),
  };
}

/** Where strokes go. */
interface Ground<S extends Stroke> {
  before: readonly S[];
  brush: Brush;
  /** A stroke with what it has besides. */
  dress(stroke: Stroke): S;
  /** How far all of it was moved since it was laid. */
  moved: Point;
  lay(strokes: S[]): void;
  label(isErasing: boolean): string;
}

function layStrokes<S extends Stroke>(
  at: Touch,
  store: BenchStore,
  { before, moved, brush, dress, lay, label }: Ground<S>,
): Drawer | undefined {
  if (at.ctrl) return resize(at, store, brush.radius);
  const { drawing, steady } = store.getState();
  const { erase } = drawing;
  const { radius, hardness, flow, pressure } = brush;
  if (before.length >= MOST_STROKES) {
    store.getState().set({ failure: "This area holds as many strokes as it can. Go on in a new one: choose another tool and come back." });
    return undefined;
  }
  const isErasing = erase !== at.alt;
  const toOwn = ({ x, y, pressure }: Touch): PathPoint => ({ x: x - moved.x, y: y - moved.y, pressure });
  const lastEnd = at.shift ? endOf(before) : undefined;
  let way: PathPoint[] = lastEnd ? [{ ...lastEnd, pressure: at.pressure }, toOwn(at)] : [toOwn(at)];
  let laid = [...before];
  // While the hand moves the way only grows, so that only what was added is laid; in the end it is kept with the fewest points.
  const stroke = (points: readonly PathPoint[]) => dress({ radius, hardness, flow, pressure, erase: isErasing, path: packPath(points) });
  lay([...laid, stroke(way)]);
  return {
    move(touches) {
      for (const touch of touches) {
        const pulled = pulledTo(way.at(-1)!, toOwn(touch), steady);
        if (pulled) way.push(pulled);
      }
      if (way.length > MOST_PATH_POINTS / 2) {
        // An endless movement goes on in another stroke, from the very place.
        laid = [...laid, stroke(simplifyPath(way, STROKE_TOLERANCE))];
        way = way.slice(-1);
      }
      lay([...laid, stroke(way)]);
    },
    finish() {
      lay([...laid, stroke(simplifyPath(way, STROKE_TOLERANCE))]);
      store.getState().commit(label(isErasing));
    },
  };
}

/** Where a brush on a string of some length comes to lie when the hand goes to a place; undefined while the string is slack. */
function pulledTo(from: PathPoint, to: PathPoint, string: number): PathPoint | undefined {
  const away = Math.hypot(to.x - from.x, to.y - from.y);
  if (away <= string) return undefined;
  const part = (away - string) / away;
  return { x: from.x + part * (to.x - from.x), y: from.y + part * (to.y - from.y), pressure: to.pressure };
}

/** With Ctrl a drag to the right makes the brush larger, to the left smaller. */
function resize(at: Touch, store: BenchStore, radius: number): Drawer {
  return {
    move(touches) {
      const { tool, drawing, exposing } = store.getState();
      const now = (isExposing(tool) ? exposing : drawing).radius;
      sizeBrush(store, Math.max(radius + touches.at(-1)!.x - at.x, LEAST_BRUSH) / now);
    },
    finish() {},
  };
}

/** Where the last stroke ended. */
function endOf(strokes: readonly Stroke[]): Point | undefined {
  const last = strokes.at(-1);
  if (!last) return undefined;
  const path = unpackPath(last.path);
  return { x: path.at(-3)!, y: path.at(-2)! };
}

/** A drag over the whole long edge makes the tolerance this many times e as large. */
const TOLERANCE_PULL = 4;

/** With Shift the hand takes more or less of what is like it: to the right for more. */
function pullTolerance(at: Touch, { id, tolerance }: LikenessShape, store: BenchStore): Drawer {
  return {
    move(touches) {
      const pulled = tolerance * Math.exp(TOLERANCE_PULL * (touches.at(-1)!.x - at.x));
      const bounded = Math.min(Math.max(pulled, LEAST_TOLERANCE), MOST_TOLERANCE);
      adjustShape(store, id, (now) => (now.kind === "likeness" ? { ...now, tolerance: bounded } : now));
    },
    finish: () => store.getState().commit(`Tolerance in ${regionName(store)}`),
  };
}

/** Touches what is meant, and sweeps over it; Alt takes away. */
function sweep(at: Touch, store: BenchStore): Drawer | undefined {
  const open = openShape(store, "likeness");
  const shape: LikenessShape = open ?? {
    id: uuid(),
    combine: combineOf(store),
    kind: "likeness",
    touched: [],
    not: [],
    tolerance: 0.08,
    connected: true,
  };
  if (open && at.shift) return pullTolerance(at, open, store);
  if (!open && at.alt) {
    store.getState().set({ failure: "Touch what is meant first; then Alt takes away what is not." });
    return undefined;
  }
  if (!open && !addShape(store, shape)) return undefined;
  store.getState().set({ chosenShape: shape.id });
  let last: Point | undefined;
  const touch = (touches: readonly Touch[]) => {
    const places: Point[] = [];
    for (const { x, y } of touches) {
      if (last && Math.hypot(x - last.x, y - last.y) < TOUCH_EVERY) continue;
      places.push((last = { x, y }));
    }
    if (places.length === 0) return;
    const side = at.alt ? "not" : "touched";
    adjustShape(store, shape.id, (now) => (now.kind === "likeness" ? { ...now, [side]: [...now[side], ...places].slice(-2000) } : now));
  };
  touch([at]);
  return {
    move: touch,
    finish: () => store.getState().commit(`Likeness ${at.alt ? "taken away" : "touched"} in ${regionName(store)}`),
  };
}

function extent(way: readonly Point[]): number {
  const [xs, ys] = [way.map(({ x }) => x), way.map(({ y }) => y)];
  return Math.min(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}
