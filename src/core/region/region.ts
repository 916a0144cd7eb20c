import type { Stroke } from "../brush/stroke";
import type { Length } from "../units";

/** A place of the picture. Units: long edges, from the upper left corner; may lie outside. */
export interface Point {
  x: Length;
  y: Length;
}

/** How a shape meets those before it. */
export const COMBINES = ["add", "subtract", "intersect"] as const;
export type Combine = (typeof COMBINES)[number];

interface ShapeBase {
  id: string;
  combine: Combine;
}

/** How softly a contour ends: full from `inner` inside it on, nothing from `outer` outside it on. Units: long edges. */
export interface Feather {
  inner: Length;
  outer: Length;
}

/** A corner of an outline; smooth ones are rounded by a curve through them. */
export interface Corner extends Point {
  smooth: boolean;
}

/** A closed line, drawn freehand or corner by corner. */
export interface OutlineShape extends ShapeBase, Feather {
  kind: "outline";
  corners: Corner[];
}

export interface OvalShape extends ShapeBase, Feather, Point {
  kind: "oval";
  /** Half axes. */
  across: Length;
  down: Length;
  /** Clockwise. */
  turnDeg: number;
}

/** Full at `from`, nothing at `to` and beyond; two-sided it falls off as far the other way too. */
export interface GradientShape extends ShapeBase {
  kind: "gradient";
  from: Point;
  to: Point;
  twoSided: boolean;
}

/** An area laid on with a brush, moved by (x, y) since. */
export interface BrushShape extends ShapeBase, Point {
  kind: "brush";
  strokes: Stroke[];
  /** Whether erasing, where it is added, takes from the shapes before it too, not from its own strokes alone. */
  beneath: boolean;
}

/** What resembles the touched places. */
export interface LikenessShape extends ShapeBase {
  kind: "likeness";
  touched: Point[];
  /** Places it is not to resemble. */
  not: Point[];
  /** Distance of colours in OKLab that still counts. */
  tolerance: number;
  /** Whether only what hangs together with the touched places counts. */
  connected: boolean;
  /** Whether its borders are found where the mixed tone changes, or where what is like the touched colours ends. */
  edges: "tone" | "colour";
  /** What is taken away: all that is nearer in colour to those places, or, where colours do not tell, what hangs together with them. */
  apart: "colour" | "place";
}

/** A greyscale picture laid over the whole, stretched to it: white acts, black does not. */
export interface PictureShape extends ShapeBase {
  kind: "picture";
  width: number;
  height: number;
  /** A level of 0–255 for each of its pixels, row after row, in base64. */
  levels: string;
}

export type Shape = OutlineShape | OvalShape | GradientShape | BrushShape | LikenessShape | PictureShape;
export type ShapeKind = Shape["kind"];

/** Where passes act: drawn once, used by any of them. */
export interface Region {
  id: string;
  name: string;
  /** Laid on one after the other. */
  shapes: Shape[];
  /** Standard deviation of a blur over all of it, in long edges. */
  soften: Length;
  /** How far from where it was drawn an edge may be drawn to one of the picture's, in long edges; 0 fits nothing. */
  fit: Length;
  invert: boolean;
  /** How much of it acts, 0–1. */
  density: number;
}

export const MOST_REGIONS = 100;
export const MOST_SHAPES = 60;
export const MOST_CORNERS = 500;
export const MOST_STROKES = 20_000;
export const MOST_TOUCHES = 2000;
/** Long edge of an imported picture: an edge of a mask is softer than its pixels. */
export const MOST_PICTURE_EDGE = 512;
export const MOST_FEATHER = 1;
export const MOST_SOFTEN = 0.2;
/** A blur of a whole region finer than this softens each shape's own edge instead: cells of a plane would be coarser than it. */
export const LEAST_SOFTEN = 0.002;
export const MOST_FIT = 0.1;
/** A fit that reaches less than a pixel of the picture it is gathered from fits nothing. */
export const LEAST_FIT = 0.002;
export const LEAST_TOLERANCE = 0.005;
/** A sweep brings the colours of its own; it is easier to sweep over more than to take away what was not meant. */
export const RESTING_TOLERANCE = 0.04;
export const MOST_TOLERANCE = 0.6;

export function hasFeather(shape: Shape): shape is OutlineShape | OvalShape {
  return shape.kind === "outline" || shape.kind === "oval";
}
