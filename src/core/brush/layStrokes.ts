import type { Grid } from "../spatial/grid";
import { falloffOf, meanAcross, SPACING } from "./falloff";
import { SharpDabs, type PixelDab } from "./sharpDabs";
import { SmoothDabs } from "./smoothDabs";
import { unpackPath, type Brush, type Stroke } from "./stroke";
import { StrokePlane } from "./strokePlane";
import { towardsFrame } from "./towardsFrame";

/**
 * A pen that presses on the size draws no thinner than this part of it, nor than so many long edges (a third of a pixel at 6,000), so
 * that a way always ends, and soon.
 */
const LEAST_PRESSED = 0.02;
const THINNEST = 5e-5;
/**
 * Dabs smaller than this, in pixels, are not drawn but reckoned: what their stroke comes to in all, by how much of its way lies in each
 * pixel.
 */
const THIN = 0.5;
/** Dabs that fall off over less than this, in pixels, are weighed finer than at the middles of pixels: see SharpDabs. */
const SHARP = 3;
/**
 * Lays strokes on a plane one after the other: each dab brings it nearer to what the stroke aims at, so that strokes
 * build up gently and level off. Dabs stand evenly along the way, whatever the rate at which it was recorded, a fifth of the radius that is
 * pressed apart.
 *
 * Shape   plane of `grid`, changed in place. `goalOf` tells where a stroke leads: 1 for an area laid on, 0 for erasing.
 * Source  CORE: D ← D + (ceiling − D) · flow · falloff.
 */
export function layStrokes<S extends Stroke>(plane: Float32Array, grid: Grid, strokes: readonly S[], goalOf: (stroke: S) => number): void {
  layOn(new StrokePlane(plane), grid, strokes, goalOf);
}

/** The same on a plane that others go on to lay on. */
export function layOn<S extends Stroke>(plane: StrokePlane, grid: Grid, strokes: readonly S[], goalOf: (stroke: S) => number): void {
  for (const stroke of strokes) if (meets(wayOf(stroke), stroke.radius, grid)) layStroke(plane, grid, stroke, goalOf(stroke));
}

/** How far along a way dabs are laid: its next piece, and what is left of it up to the next dab. */
export interface Progress {
  piece: number;
  left: number;
}

/** The same of a stroke on a plane. */
export interface StrokeProgress extends Progress {
  /** How much of each pixel a stroke thinner than pixels has covered. */
  thin: Map<number, number>;
}

/** What laying a stroke came to: how far it got, and the rows of the grid it went over. */
export interface LaidStroke {
  progress: StrokeProgress;
  rows: { from: number; to: number };
}

/** Lays one stroke, or what was added to it since: begun anew without progress. */
export function layStroke(plane: StrokePlane, grid: Grid, stroke: Stroke, goal: number, since?: StrokeProgress): LaidStroke {
  const way = wayOf(stroke);
  const { path } = way;
  const isFar = !meets(way, stroke.radius, grid);
  const falloff = falloffOf(stroke.hardness);
  const flows = stroke.pressure === "flow" || stroke.pressure === "both";
  const sizes = pressesSize(stroke);
  const reach = stroke.radius * grid.scale;
  const thin = since?.thin ?? new Map<number, number>();
  const sharp = new SharpDabs(grid, { ...stroke, table: falloff });
  const smooth = new SmoothDabs(grid, plane, falloff, goal);
  let [top, bottom] = [Infinity, -Infinity];
  const progress = forDabs(
    path,
    stroke,
    (x, y, pressure) => {
      if (isFar) return;
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      const radius = sizes ? stroke.radius * pressure : stroke.radius;
      const flow = flows ? stroke.flow * pressure : stroke.flow;
      const reach = radius * grid.scale;
      const [cx, cy] = [x * grid.scale - grid.x - 0.5, y * grid.scale - grid.y - 0.5];
      const dab = { x: cx, y: cy, reach, flow, frame: towardsFrame(grid, cx, cy, reach) };
      if (reach < THIN) layThin(plane, grid, dab, stroke.hardness, goal, thin);
      else if ((1 - stroke.hardness) * reach < SHARP) sharp.add(dab);
      else smooth.add(dab);
    },
    since,
  );
  smooth.layOn();
  sharp.layOn(plane, goal);
  const row = (y: number, away: number) => Math.min(Math.max(Math.floor(y * grid.scale - grid.y + away), 0), grid.height);
  return {
    progress: { ...progress, thin },
    rows: top > bottom ? { from: 0, to: 0 } : { from: row(top, -reach - 2), to: row(bottom, reach + 3) },
  };
}

function pressesSize({ pressure }: Pick<Brush, "pressure">): boolean {
  return pressure === "size" || pressure === "both";
}

function pressedRadius(radius: number, pressure: number): number {
  return Math.max(radius * Math.max(pressure, LEAST_PRESSED), Math.min(radius, THINNEST));
}

/** The width over which a stroke falls off where it does so most steeply. Units: long edges. */
export function softness(stroke: Stroke): number {
  return (1 - stroke.hardness) * stroke.radius * (pressesSize(stroke) ? wayOf(stroke).lightest : 1);
}

/** A stroke's way unpacked, the box it lies in, and its lightest pressure. */
interface Way {
  lightest: number;
  path: Float64Array;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Each band of an export asks every stroke whether it comes near: a way is unpacked once, not with each question. */
const ways = new WeakMap<Stroke, Way>();

function wayOf(stroke: Stroke): Way {
  const known = ways.get(stroke);
  if (known) return known;
  const path = unpackPath(stroke.path);
  const way = { path, left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity, lightest: 1 };
  for (let i = 0; i < path.length; i += 3) {
    way.left = Math.min(way.left, path[i]!);
    way.right = Math.max(way.right, path[i]!);
    way.top = Math.min(way.top, path[i + 1]!);
    way.bottom = Math.max(way.bottom, path[i + 1]!);
    way.lightest = Math.min(way.lightest, path[i + 2]!);
  }
  ways.set(stroke, way);
  return way;
}

/** Whether a way comes near the grid at all. */
function meets({ left, top, right, bottom }: Way, radius: number, { x, y, width, height, scale }: Grid): boolean {
  const reach = radius + 1 / scale;
  return (
    (left - reach) * scale < x + width && (right + reach) * scale > x && (top - reach) * scale < y + height && (bottom + reach) * scale > y
  );
}

/** Visits the dabs of a way: one at its beginning, then each a step of its length on, by the radius pressed at the one before. */
export function forDabs(
  path: Float64Array,
  brush: Pick<Brush, "radius" | "pressure">,
  visit: (x: number, y: number, pressure: number) => void,
  since?: Progress,
): Progress {
  const sizes = pressesSize(brush);
  const stepAt = (pressure: number) => SPACING * (sizes ? pressedRadius(brush.radius, pressure) : brush.radius);
  if (!since) visit(path[0]!, path[1]!, path[2]!);
  let left = since?.left ?? stepAt(path[2]!);
  let i = since?.piece ?? 3;
  for (; i < path.length; i += 3) {
    const [x, y, p] = [path[i - 3]!, path[i - 2]!, path[i - 1]!];
    const [dx, dy, dp] = [path[i]! - x, path[i + 1]! - y, path[i + 2]! - p];
    const length = Math.hypot(dx, dy);
    while (left <= length) {
      const part = left / length;
      const pressure = p + part * dp;
      visit(x + part * dx, y + part * dy, pressure);
      left += stepAt(pressure);
    }
    left -= length;
  }
  return { piece: i, left };
}

/** Places to a side of a thin dab. */
const THIN_PLACES = 3;

/**
 * A dab thinner than a pixel: its stroke covers as much of a pixel as its width times the way through it, and brings that towards the goal
 * as far as it does in the mean over its width. Each dab gives its part of the way.
 */
function layThin(
  plane: StrokePlane,
  { width, height }: Grid,
  { x, y, reach, flow }: PixelDab,
  hardness: number,
  goal: number,
  thin: Map<number, number>,
): void {
  const part = (2 * reach * meanAcross(hardness, flow) * SPACING * reach) / THIN_PLACES ** 2;
  for (let k = 0; k < THIN_PLACES ** 2; k++) {
    const place = (i: number) => ((2 * i + 1) / THIN_PLACES - 1) * reach;
    const column = Math.round(x + place(k % THIN_PLACES));
    const row = Math.round(y + place(Math.floor(k / THIN_PLACES)));
    if (column < 0 || row < 0 || column >= width || row >= height) continue;
    const at = row * width + column;
    const covered = thin.get(at) ?? 0;
    const now = Math.min(covered + part, MOST_COVERED);
    thin.set(at, now);
    plane.lay(at, goal, (now - covered) / (1 - covered));
  }
}
const MOST_COVERED = 0.999;
