import { strokesKey } from "../brush/strokesKey";
import type { Shape } from "./region";

/** Equal keys, equal places: a shape's data, but for its name. */
export function shapeKey(shape: Shape): string {
  if (shape.kind !== "brush") return JSON.stringify({ ...shape, id: "" });
  return `brush ${shape.combine} ${shape.beneath} ${shape.x} ${shape.y} ${strokesKey(shape.strokes)}`;
}
