import type { Stroke } from "../brush/stroke";
import type { Shape } from "./region";

let numbered = 0;
const numbers = new WeakMap<Stroke, number>();

/** Equal keys, equal places: a shape's data, its strokes by the objects they are, for there may be thousands. */
export function shapeKey(shape: Shape): string {
  if (shape.kind !== "brush") return JSON.stringify({ ...shape, id: "" });
  return `brush ${shape.combine} ${shape.x} ${shape.y} ${strokesKey(shape.strokes)}`;
}

/** Strokes by the objects they are. */
export function strokesKey(strokes: readonly Stroke[]): string {
  return strokes.map(numberOf).join(",");
}

function numberOf(stroke: Stroke): number {
  const known = numbers.get(stroke);
  if (known !== undefined) return known;
  numbers.set(stroke, ++numbered);
  return numbered;
}
