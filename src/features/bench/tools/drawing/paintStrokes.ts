import { v4 as uuid } from "uuid";
import { simplifyPath, simplifyPathTo } from "@/core/brush/simplifyPath";
import { MOST_PATH_POINTS, packPath, unpackPath, type Brush, type PathPoint, type Stroke } from "@/core/brush/stroke";
import { MOST_STROKES, type BrushShape, type Point } from "@/core/region/region";
import type { BenchStore } from "../../state/benchStore";
import { chosenRegion, confinedInHand } from "../../state/inPlan";
import { isExposing } from "../tools";
import { LEAST_BRUSH, sizeBrush } from "../brushSize";
import { withGate } from "@/core/plan/editRegions";
import { addShape, adjustShape, regionName } from "../../regions/regionEdits";
import { combineOf, openShape, type Drawer, type Touch } from "./drawer";

/** A stroke's way stays this near to where the hand went, in long edges, so that nothing is lost that could be seen. */
const STROKE_TOLERANCE = 0.0004;
/** Points of a way under the hand, at which it goes on in another stroke. */
const LONGEST_WAY = MOST_PATH_POINTS / 2;

/**
 * Brushes a region: adds to it, or, taking away or with Alt, takes from it, whatever shape it was. Where nothing is drawn yet, what is
 * taken is taken from the whole picture. With Shift the stroke is a straight one from where the last ended.
 */
export function paint(at: Touch, store: BenchStore): Drawer | undefined {
  const takes = (combineOf(store) === "subtract") !== isErasing(at, store);
  const isNew = (chosenRegion(store.getState())?.shapes ?? []).length === 0;
  const open = openBrush(store);
  const combine = isNew && takes ? "subtract" : combineOf(store);
  const shape: BrushShape = open ?? { id: uuid(), combine, kind: "brush", x: 0, y: 0, strokes: [], beneath: true };
  if (!open && !addShape(store, shape)) return undefined;
  if (isNew && takes) store.getState().set({ notice: `${regionName(store)} is the whole picture less what you brush.` });
  store.getState().set({ chosenShape: shape.id });
  return drawStroke<Stroke>(at, store, {
    before: shape.strokes,
    moved: shape,
    brush: store.getState().drawing,
    erase: takes !== (shape.combine === "subtract"),
    dress: (stroke) => stroke,
    lay: (strokes) => adjustShape(store, shape.id, (now) => (now.kind === "brush" ? { ...now, strokes, beneath: shape.beneath } : now)),
    label: `${takes ? "Brushed away" : "Brushed"} in ${regionName(store)}`,
  });
}

/**
 * The brushed area that strokes go on in. One whose erasing leaves alone what lies beneath is left as it is; without any, it may as well
 * take from there.
 */
function openBrush(store: BenchStore): BrushShape | undefined {
  const open = openShape(store, "brush");
  if (!open || open.beneath || open.combine !== "add") return open;
  return open.strokes.some(({ erase }) => erase) ? undefined : { ...open, beneath: true };
}

/** Whether the hand takes away what it would lay: by the switch or, the other way round, with Alt. */
export function isErasing({ alt }: Pick<Touch, "alt">, store: BenchStore): boolean {
  return store.getState().drawing.erase !== alt;
}

/** Lays a stroke on the gate of the pass or set in hand: more is let through there, or less. */
export function repair(at: Touch, store: BenchStore): Drawer | undefined {
  const thing = confinedInHand(store.getState());
  if (!thing?.gate) {
    store.getState().set({ failure: "There is no gate to repair in this pass. Choose its tones first." });
    return undefined;
  }
  const { gate } = thing;
  return drawStroke<Stroke>(at, store, {
    before: gate.repair,
    moved: { x: 0, y: 0 },
    brush: store.getState().drawing,
    erase: isErasing(at, store),
    dress: (stroke) => stroke,
    lay: (strokes) => store.getState().adjust((plan) => withGate(plan, thing.id, { ...gate, repair: strokes })),
    label: `Gate of ${thing.name} lets ${isErasing(at, store) ? "less" : "more"} through`,
  });
}

/** Where strokes go. */
interface Ground<S extends Stroke> {
  before: readonly S[];
  brush: Brush;
  /** Whether the stroke erases. */
  erase: boolean;
  /** A stroke with what it has besides. */
  dress(stroke: Stroke): S;
  /** How far all of it was moved since it was laid. */
  moved: Point;
  lay(strokes: S[]): void;
  label: string;
}

/** Lays a stroke by hand on a ground. */
export function drawStroke<S extends Stroke>(
  at: Touch,
  store: BenchStore,
  { before, moved, brush, erase, dress, lay, label }: Ground<S>,
): Drawer | undefined {
  if (at.ctrl) return resize(at, store, brush.radius);
  const { steady } = store.getState();
  const { radius, hardness, flow, pressure } = brush;
  if (before.length >= MOST_STROKES) {
    store.getState().set({ failure: "This area holds as many strokes as it can. Go on in a new one: choose another tool and come back." });
    return undefined;
  }
  const toOwn = ({ x, y, pressure }: Touch): PathPoint => ({ x: x - moved.x, y: y - moved.y, pressure });
  const lastEnd = at.shift ? endOf(before) : undefined;
  let way: PathPoint[] = lastEnd ? [{ ...lastEnd, pressure: at.pressure }, toOwn(at)] : [toOwn(at)];
  let laid = [...before];
  // While the hand moves the way only grows, so that only what was added is laid; in the end it is kept with the fewest points.
  const stroke = (points: readonly PathPoint[]) => dress({ radius, hardness, flow, pressure, erase, path: packPath(points) });
  lay([...laid, stroke(way)]);
  return {
    move(touches) {
      for (const touch of touches) {
        const pulled = pulledTo(way.at(-1)!, toOwn(touch), steady);
        if (pulled) way.push(pulled);
        if (way.length < LONGEST_WAY) continue;
        // An endless movement goes on in another stroke, from the very place; where no more fit, on fewer points.
        if (laid.length + 2 <= MOST_STROKES) {
          laid = [...laid, stroke(simplifyPath(way, STROKE_TOLERANCE))];
          way = way.slice(-1);
        } else way = simplifyPathTo(way, LONGEST_WAY / 2, STROKE_TOLERANCE);
      }
      lay([...laid, stroke(way)]);
    },
    finish() {
      lay([...laid, stroke(simplifyPath(way, STROKE_TOLERANCE))]);
      store.getState().commit(label);
    },
  };
}

/** Where a brush on a string of some length comes to lie when the hand goes to a place; undefined while the string is slack. */
function pulledTo(from: PathPoint, to: PathPoint, string: number): PathPoint | undefined {
  const away = Math.hypot(to.x - from.x, to.y - from.y);
  if (away <= string) return undefined;
  const part = (away - string) / away;
  if (!Number.isFinite(part)) return undefined; // a place that is none
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
