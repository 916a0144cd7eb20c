import { unpackPath } from "../brush/stroke";
import type { BrushShape, Point, Shape } from "./region";
import type { Length } from "../units";

/** Every place of a shape carried to another. Brushed areas only shift. Units: long edges. */
export function movedShape(shape: Shape, dx: Length, dy: Length): Shape {
  const move = <P extends Point>(place: P): P => ({ ...place, x: place.x + dx, y: place.y + dy });
  switch (shape.kind) {
    case "outline":
      return { ...shape, corners: shape.corners.map(move) };
    case "oval":
    case "brush":
      return move(shape);
    case "gradient":
      return { ...shape, from: move(shape.from), to: move(shape.to) };
    case "likeness": // it lies where the picture is like it
    case "picture": // it lies over the whole
      return shape;
  }
}

/** Turned clockwise about a place and made larger, as far as its kind can be. */
export function turnedShape(shape: Shape, about: Point, turnDeg: number, factor: number): Shape {
  const [cos, sin] = [factor * Math.cos((turnDeg * Math.PI) / 180), factor * Math.sin((turnDeg * Math.PI) / 180)];
  const turn = <P extends Point>(place: P): P => {
    const [dx, dy] = [place.x - about.x, place.y - about.y];
    return { ...place, x: about.x + dx * cos - dy * sin, y: about.y + dx * sin + dy * cos };
  };
  switch (shape.kind) {
    case "outline":
      return { ...shape, corners: shape.corners.map(turn) };
    case "oval":
      return {
        ...turn(shape),
        across: shape.across * factor,
        down: shape.down * factor,
        turnDeg: ((((shape.turnDeg + turnDeg + 180) % 360) + 360) % 360) - 180,
      };
    case "gradient":
      return { ...shape, from: turn(shape.from), to: turn(shape.to) };
    case "brush":
    case "likeness":
    case "picture":
      return shape;
  }
}

/** The middle of a shape, by which it is moved; undefined where it has none of its own. */
export function middleOfShape(shape: Shape): Point | undefined {
  switch (shape.kind) {
    case "outline":
      return meanOf(shape.corners);
    case "oval":
      return { x: shape.x, y: shape.y };
    case "gradient":
      return meanOf([shape.from, shape.to]);
    case "brush":
      return middleOfStrokes(shape);
    case "likeness":
    case "picture":
      return undefined;
  }
}

/** Strokes asked where they lie: all of thousands need not be. */
const ASKED_STROKES = 40;

function middleOfStrokes({ strokes, x, y }: BrushShape): Point | undefined {
  const step = Math.max(1, Math.floor(strokes.length / ASKED_STROKES));
  const begins = strokes
    .filter((_, i) => i % step === 0)
    .map(({ path }) => {
      const places = unpackPath(path);
      const middle = 3 * Math.floor(places.length / 6);
      return { x: places[middle]! + x, y: places[middle + 1]! + y };
    });
  return begins.length > 0 ? meanOf(begins) : undefined;
}

function meanOf(places: readonly Point[]): Point {
  const sum = places.reduce((all, { x, y }) => ({ x: all.x + x, y: all.y + y }), { x: 0, y: 0 });
  return { x: sum.x / places.length, y: sum.y / places.length };
}
