import type { Region, Shape } from "./region";

/** The plane of a shape laid out, which may be kept elsewhere unless it is asked for as one's own. */
export type LaidShape<S extends Shape> = (shape: S, own: boolean) => Float32Array;

/**
 * Shapes laid on one after the other: added 1 − (1 − a)(1 − b), taken away a(1 − b), met ab. A region that begins by
 * taking away or meeting begins with the whole picture, one without shapes is nothing.
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
    if (shape.combine === "add") for (let i = 0; i < pixels; i++) out[i] = out[i]! + plane[i]! - out[i]! * plane[i]!;
    else if (shape.combine === "subtract") for (let i = 0; i < pixels; i++) out[i] = out[i]! * (1 - plane[i]!);
    else for (let i = 0; i < pixels; i++) out[i] = out[i]! * plane[i]!;
  }
  return out;
}

/** Inverts and thins a region's plane as it asks, in place. */
export function finishRegion(plane: Float32Array, { invert, density }: Pick<Region, "invert" | "density">): void {
  if (!invert && density === 1) return;
  for (let i = 0; i < plane.length; i++) plane[i] = density * (invert ? 1 - plane[i]! : plane[i]!);
}
