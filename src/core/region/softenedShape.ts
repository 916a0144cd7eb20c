import type { Stroke } from "../brush/stroke";
import { MOST_FEATHER, type Point, type Shape } from "./region";
import type { Length } from "../units";

/** The width of our edges' smooth step, in its own standard deviations. */
const STEP_WIDTHS = Math.sqrt(20);

/**
 * A shape with its own edge as much softer as a blur of so fine a standard deviation would make it. A blur of the laid-out plane would need
 * cells as fine as itself. What the picture or a file tells has no edge of its own to soften.
 *
 * Units   sigma in long edges.
 */
export function softenedShape<S extends Shape>(shape: S, sigma: Length): S {
  if (sigma === 0) return shape;
  const known = softened.get(shape);
  if (known?.sigma === sigma) return known.shape as S;
  const made = softer(shape, sigma) as S;
  softened.set(shape, { sigma, shape: made });
  return made;
}

/** Bands of an export ask again and again; strokes are told apart by the objects they are. */
const softened = new WeakMap<Shape, { sigma: number; shape: Shape }>();

function softer(shape: Shape, sigma: number): Shape {
  switch (shape.kind) {
    case "outline":
    case "oval": {
      const by = growth(shape.inner + shape.outer, sigma);
      return { ...shape, inner: Math.min(shape.inner + by, MOST_FEATHER), outer: Math.min(shape.outer + by, MOST_FEATHER) };
    }
    case "gradient": {
      const length = Math.hypot(shape.to.x - shape.from.x, shape.to.y - shape.from.y);
      if (length === 0) return shape;
      const part = growth(length, sigma) / length;
      const on = (a: Point, b: Point): Point => ({ x: b.x + part * (b.x - a.x), y: b.y + part * (b.y - a.y) });
      // A two-sided one has its middle where it begins.
      return { ...shape, from: shape.twoSided ? shape.from : on(shape.to, shape.from), to: on(shape.from, shape.to) };
    }
    case "brush":
      return { ...shape, strokes: shape.strokes.map((stroke) => softerStroke(stroke, sigma)) };
    case "likeness":
    case "picture":
      return shape;
  }
}

function softerStroke(stroke: Stroke, sigma: number): Stroke {
  const by = growth((1 - stroke.hardness) * stroke.radius, sigma);
  const radius = Math.min(stroke.radius + by, 1);
  return { ...stroke, radius, hardness: Math.max(stroke.hardness * stroke.radius - by, 0) / radius };
}

/** How much further an edge of a width reaches to either side once it is blurred: variances add. */
function growth(width: number, sigma: number): number {
  return (Math.hypot(width, STEP_WIDTHS * sigma) - width) / 2;
}
