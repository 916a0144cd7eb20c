import { smoothStep } from "../region/contour";
import type { Grid } from "../region/grid";
import { FALLOFF_STEPS, falloffOf, meanAcross, SPACING } from "./falloff";
import { unpackPath, type Brush, type Stroke } from "./stroke";
import { PLACES, StrokePlane } from "./strokePlane";

/**
 * A pen that presses on the size draws no thinner than this part of it, nor than so many long edges (a third of a pixel at 6,000), so
 * that a way always ends, and soon.
 */
const LEAST_PRESSED = 0.02;
const THINNEST = 5e-5;
/** Dabs smaller than this, in pixels, are not drawn but reckoned: what their stroke comes to in all, by how much of its way lies in each pixel. */
const THIN = 0.5;
/** Dabs that fall off over less than this, in pixels, are weighed finer than at the middles of pixels. */
const SHARP = 3;
/** Weaker dabs give a pixel the mean of its places: what lies on them differs too little for their order to matter. */
const WEAK = 0.12;
/** From the middle of a pixel to its corner. */
const HALF_DIAGONAL = Math.SQRT1_2;

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
      layDab(plane, grid, { x, y, radius, flow, hardness: stroke.hardness, falloff, goal, thin });
    },
    since,
  );
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

interface Dab extends Pick<Brush, "radius" | "flow" | "hardness"> {
  x: number;
  y: number;
  falloff: Float32Array;
  goal: number;
  thin: Map<number, number>;
}

function layDab(plane: StrokePlane, grid: Grid, dab: Dab): void {
  const reach = dab.radius * grid.scale;
  const [cx, cy] = [dab.x * grid.scale - grid.x - 0.5, dab.y * grid.scale - grid.y - 0.5];
  if (reach < THIN) return layThin(plane, grid, dab, cx, cy, reach);
  const frame = towardsFrame(grid, cx, cy, reach);
  if (frame || (1 - dab.hardness) * reach < SHARP) layFine(plane, grid, dab, cx, cy, reach, frame ?? UNMOVED);
  else laySmooth(plane, grid, dab, cx, cy, reach);
}

/** A dab whose every pixel is told by its middle. */
function laySmooth(
  strokes: StrokePlane,
  { width, height }: Grid,
  { falloff, flow, goal }: Dab,
  cx: number,
  cy: number,
  reach: number,
): void {
  const { plane, finer } = strokes;
  const [top, bottom] = [Math.max(Math.ceil(cy - reach), 0), Math.min(Math.floor(cy + reach), height - 1)];
  const toStep = FALLOFF_STEPS / (reach * reach);
  for (let row = top; row <= bottom; row++) {
    const dy2 = (row - cy) * (row - cy);
    const half = Math.sqrt(Math.max(reach * reach - dy2, 0));
    const from = Math.max(Math.ceil(cx - half), 0);
    const to = Math.min(Math.floor(cx + half), width - 1);
    for (let column = from, at = row * width + from; column <= to; column++, at++) {
      const step = ((column - cx) * (column - cx) + dy2) * toStep;
      const k = step | 0;
      const share = flow * (falloff[2 * k]! + falloff[2 * k + 1]! * (step - k));
      if (finer?.[at]) strokes.lay(at, goal, share);
      else plane[at] = plane[at]! + (goal - plane[at]!) * share;
    }
  }
}

/** How far distances from a dab's middle count towards each border of the frame: less than 1 where it goes on beyond it. */
interface TowardsFrame {
  left: number;
  right: number;
  up: number;
  down: number;
}
const UNMOVED: TowardsFrame = { left: 1, right: 1, up: 1, down: 1 };

/** A dab whose middle is nearer to the frame than half its radius goes on to it as strong as it is; from a radius away it ends as anywhere. */
function towardsFrame({ x, y, whole, scale, moved }: Grid, cx: number, cy: number, reach: number): TowardsFrame | undefined {
  const [left, up] = [cx + 0.5 + x + (moved?.x ?? 0) * scale, cy + 0.5 + y + (moved?.y ?? 0) * scale];
  const [right, down] = [whole.width - left, whole.height - up];
  if (Math.min(left, right, up, down) >= reach) return undefined;
  const counts = (depth: number) => (depth < 0 ? 1 : smoothStep(2 * (depth / reach) - 1));
  return { left: counts(left), right: counts(right), up: counts(up), down: counts(down) };
}

const shares = new Float64Array(PLACES * PLACES);

/** A dab that may be harder than pixels are wide, on pixels that may be held finer, or that goes on beyond the frame. */
function layFine(plane: StrokePlane, { width, height }: Grid, dab: Dab, cx: number, cy: number, reach: number, frame: TowardsFrame): void {
  const { flow, goal, hardness } = dab;
  const isSharp = (1 - hardness) * reach < SHARP;
  const full = hardness * reach - HALF_DIAGONAL;
  const outer = reach + (isSharp ? HALF_DIAGONAL : 0);
  const span = (middle: number, towardsLow: number, towardsHigh: number, last: number) => [
    Math.max(Math.ceil(towardsLow > 0 ? middle - outer / towardsLow : 0), 0),
    Math.min(Math.floor(towardsHigh > 0 ? middle + outer / towardsHigh : last), last),
  ];
  const [top, bottom] = span(cy, frame.up, frame.down, height - 1) as [number, number];
  const [left, right] = span(cx, frame.left, frame.right, width - 1) as [number, number];
  const share = fineShare(dab, reach);
  const values = plane.plane;
  const [stretchX, stretchY] = [frame.left !== 1 || frame.right !== 1, frame.up !== 1 || frame.down !== 1];
  for (let row = top; row <= bottom; row++) {
    const v = (row - cy) * (row < cy ? frame.up : frame.down);
    const half = Math.sqrt(Math.max(outer * outer - v * v, 0));
    const from = stretchX ? left : Math.max(Math.ceil(cx - half), left);
    const to = stretchX ? right : Math.min(Math.floor(cx + half), right);
    // Well inside the hard part nothing has to be weighed.
    const inner = isSharp && !stretchX && !stretchY && full > Math.abs(v) ? Math.sqrt(full * full - v * v) : -1;
    const [fullFrom, fullTo] = [Math.ceil(cx - inner), Math.floor(cx + inner)];
    for (let column = from, at = row * width + from; column <= to; column++, at++) {
      if (inner > 0 && column >= fullFrom && column <= fullTo) {
        if (plane.finer?.[at]) plane.lay(at, goal, flow);
        else values[at] = values[at]! + (goal - values[at]!) * flow;
        continue;
      }
      const u = (column - cx) * (column < cx ? frame.left : frame.right);
      const away = Math.sqrt(u * u + v * v);
      if (away >= outer) continue;
      if (!isSharp || (full > 0 && away <= full)) {
        plane.lay(at, goal, flow * share(away));
        continue;
      }
      layEdge(plane, at, row - cy, column - cx, dab, frame, share);
    }
  }
}

/** A dab on a pixel that its edge crosses, at a distance from its middle. */
function layEdge(
  plane: StrokePlane,
  at: number,
  y: number,
  x: number,
  { flow, goal }: Dab,
  frame: TowardsFrame,
  share: (away: number) => number,
): void {
  let sum = 0;
  for (let v = 0, k = 0; v < PLACES; v++) {
    const dy = y + offset(v);
    const pv = dy * (dy < 0 ? frame.up : frame.down);
    for (let u = 0; u < PLACES; u++, k++) {
      const dx = x + offset(u);
      const pu = dx * (dx < 0 ? frame.left : frame.right);
      sum += shares[k] = flow * share(Math.sqrt(pu * pu + pv * pv));
    }
  }
  if (sum === 0) return;
  if (flow < WEAK) plane.lay(at, goal, sum / shares.length);
  else plane.layPlaces(at, goal, shares);
}

/** Places to a side of a thin dab. */
const THIN_PLACES = 3;

/**
 * A dab thinner than a pixel: its stroke covers as much of a pixel as its width times the way through it, and brings that towards the goal as
 * far as it does in the mean over its width. Each dab gives its part of the way.
 */
function layThin(
  plane: StrokePlane,
  { width, height }: Grid,
  { hardness, flow, goal, thin }: Dab,
  cx: number,
  cy: number,
  reach: number,
): void {
  const part = (2 * reach * meanAcross(hardness, flow) * SPACING * reach) / THIN_PLACES ** 2;
  for (let k = 0; k < THIN_PLACES ** 2; k++) {
    const place = (i: number) => ((2 * i + 1) / THIN_PLACES - 1) * reach;
    const column = Math.round(cx + place(k % THIN_PLACES));
    const row = Math.round(cy + place(Math.floor(k / THIN_PLACES)));
    if (column < 0 || row < 0 || column >= width || row >= height) continue;
    const at = row * width + column;
    const covered = thin.get(at) ?? 0;
    const now = Math.min(covered + part, MOST_COVERED);
    thin.set(at, now);
    plane.lay(at, goal, (now - covered) / (1 - covered));
  }
}
const MOST_COVERED = 0.999;

/** Where a place of a pixel lies beside its middle, in pixels. */
function offset(place: number): number {
  return (place + 0.5) / PLACES - 0.5;
}

/** How far a dab acts at a distance from its middle, in pixels; one that ends within a place ends over its width. */
function fineShare({ hardness, falloff }: Dab, reach: number): (away: number) => number {
  if ((1 - hardness) * reach * PLACES < 1) {
    const middle = ((1 + hardness) * reach) / 2;
    return (away) => Math.min(Math.max((middle - away) * PLACES + 0.5, 0), 1);
  }
  return (away) => {
    const step = ((away * away) / (reach * reach)) * FALLOFF_STEPS;
    if (step >= FALLOFF_STEPS) return 0;
    const k = step | 0;
    return falloff[2 * k]! + falloff[2 * k + 1]! * (step - k);
  };
}
