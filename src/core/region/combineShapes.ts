import type { Region, Shape } from "./region";

/**
 * Shapes laid on one after the other: added 1 − (1 − a)(1 − b), taken away a(1 − b), met ab. A region that begins by
 * taking away or meeting begins with the whole picture, one without shapes is nothing.
 *
 * Shape   as many values as a plane has; 0–1 in and out.
 */
export function combineShapes(shapes: readonly Shape[], planeOf: (shape: Shape) => Float32Array, pixels: number): Float32Array {
  const out = new Float32Array(pixels);
  if (shapes.length > 0 && shapes[0]!.combine !== "add") out.fill(1);
  for (const shape of shapes) {
    const plane = planeOf(shape);
    if (shape.combine === "add") for (let i = 0; i < pixels; i++) out[i] = out[i]! + plane[i]! - out[i]! * plane[i]!;
    else if (shape.combine === "subtract") for (let i = 0; i < pixels; i++) out[i] = out[i]! * (1 - plane[i]!);
    else for (let i = 0; i < pixels; i++) out[i] = out[i]! * plane[i]!;
  }
  return out;
}

/** Inverts and thins a region's plane as it asks, in place. */
export function finishRegion(plane: Float32Array, { invert, density }: Pick<Region, "invert" | "density">): void {
  for (let i = 0; i < plane.length; i++) plane[i] = density * (invert ? 1 - plane[i]! : plane[i]!);
}
