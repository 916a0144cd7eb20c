import type { Stroke } from "../brush/stroke";
import type { BrushShape, Region, Shape } from "./region";

/** The plane of a shape laid out, which may be kept elsewhere unless it is asked for as one's own. */
export type LaidShape<S extends Shape> = (shape: S, own: boolean) => Float32Array;

/**
 * Shapes laid on one after the other: added 1 − (1 − a)(1 − b), taken away a(1 − b), met ab. A region that begins by
 * taking away or meeting begins with the whole picture, one without shapes is nothing. Strokes that erase what lies beneath them leave a(1
 * − e) of it.
 *
 * Shape   as many values as a plane has; 0–1 in and out. `planeOf` lays a shape out; the plane it gives as `own` is changed and given back.
 */
export function combineShapes(shapes: readonly Shape[], planeOf: LaidShape<Shape>, pixels: number): Float32Array {
  const [first] = shapes;
  if (!first) return new Float32Array(pixels);
  const beginsWithAll = first.combine !== "add";
  const out = beginsWithAll ? new Float32Array(pixels).fill(1) : planeOf(first, true);
  for (const shape of beginsWithAll ? shapes : shapes.slice(1)) {
    const plane = planeOf(shape, false);
    if (erasesBeneath(shape)) layOver(out, plane, planeOf(erasedBy(shape), false));
    else if (shape.combine === "add") for (let i = 0; i < pixels; i++) out[i] = out[i]! + plane[i]! - out[i]! * plane[i]!;
    else if (shape.combine === "subtract") for (let i = 0; i < pixels; i++) out[i] = out[i]! * (1 - plane[i]!);
    else for (let i = 0; i < pixels; i++) out[i] = out[i]! * plane[i]!;
  }
  return out;
}

function erasesBeneath(shape: Shape): shape is BrushShape {
  return shape.kind === "brush" && shape.beneath && shape.combine === "add" && shape.strokes.some(({ erase }) => erase);
}

/**
 * Strokes over what is there: the plane they lay from nothing, b, and the one they leave erased of all, e. Each dab is linear in what it
 * meets, so that of what was there a, they leave a(1 − b − e) besides b.
 */
function layOver(out: Float32Array, plane: Float32Array, erased: Float32Array): void {
  for (let i = 0; i < out.length; i++) out[i] = plane[i]! + out[i]! * Math.max(1 - plane[i]! - erased[i]!, 0);
}

/** The same strokes the other way round: laid from nothing they tell how much of all is erased in the end. */
function erasedBy(shape: BrushShape): BrushShape {
  const known = turned.get(shape);
  if (known) return known;
  const strokes = shape.strokes.map((stroke) => {
    const other = turnedStrokes.get(stroke) ?? { ...stroke, erase: !stroke.erase };
    turnedStrokes.set(stroke, other);
    return other;
  });
  const made = { ...shape, id: `${shape.id} erased`, strokes };
  turned.set(shape, made);
  return made;
}
/** What is kept of strokes is kept by the objects they are. */
const turned = new WeakMap<BrushShape, BrushShape>();
const turnedStrokes = new WeakMap<Stroke, Stroke>();

/** Inverts and thins a region's plane as it asks, in place. */
export function finishRegion(plane: Float32Array, { invert, density }: Pick<Region, "invert" | "density">): void {
  if (!invert && density === 1) return;
  for (let i = 0; i < plane.length; i++) plane[i] = density * (invert ? 1 - plane[i]! : plane[i]!);
}
