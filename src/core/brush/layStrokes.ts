import type { Grid } from "../region/grid";
import { unpackPath, type Brush, type Stroke } from "./stroke";

/** Distance of dabs, in radii: close enough that a stroke shows none of them. */
const SPACING = 0.2;
/** Dabs are drawn no smaller than this, in pixels: smaller ones would fall between the middles of pixels. */
const LEAST_RADIUS = 0.75;
const FALLOFF_STEPS = 1024;

/**
 * Lays strokes on a plane one after the other: each dab brings it nearer to what the stroke aims at, so that strokes
 * build up gently and level off. Dabs stand evenly along the way, whatever the rate at which it was recorded.
 *
 * Shape   plane of `grid`, changed in place. `goalOf` tells where a stroke leads: 1 for an area laid on, 0 for erasing.
 * Source  CORE: D ← D + (ceiling − D) · flow · falloff.
 */
export function layStrokes<S extends Stroke>(plane: Float32Array, grid: Grid, strokes: readonly S[], goalOf: (stroke: S) => number): void {
  for (const stroke of strokes) if (meets(wayOf(stroke), stroke.radius, grid)) layStroke(plane, grid, stroke, goalOf(stroke));
}

/** How far along a way dabs are laid: its next piece, and what is left of it up to the next dab. */
export interface Progress {
  piece: number;
  left: number;
}

/** What laying a stroke came to: how far it got, and the rows of the grid it went over. */
export interface LaidStroke {
  progress: Progress;
  rows: { from: number; to: number };
}

/** Lays one stroke, or what was added to it since: begun anew without progress. */
export function layStroke(plane: Float32Array, grid: Grid, stroke: Stroke, goal: number, since?: Progress): LaidStroke {
  const way = wayOf(stroke);
  const { path } = way;
  const isFar = !meets(way, stroke.radius, grid);
  const falloff = falloffOf(stroke);
  const sizes = stroke.pressure === "size" || stroke.pressure === "both";
  const flows = stroke.pressure === "flow" || stroke.pressure === "both";
  const reach = Math.max(stroke.radius * grid.scale, LEAST_RADIUS);
  let [top, bottom] = [Infinity, -Infinity];
  const progress = forDabs(
    path,
    stroke,
    (x, y, pressure) => {
      if (isFar) return;
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      layDab(
        plane,
        grid,
        x,
        y,
        sizes ? stroke.radius * pressure : stroke.radius,
        flows ? stroke.flow * pressure : stroke.flow,
        falloff,
        goal,
      );
    },
    since,
  );
  const row = (y: number, away: number) => Math.min(Math.max(Math.floor(y * grid.scale - grid.y + away), 0), grid.height);
  return { progress, rows: top > bottom ? { from: 0, to: 0 } : { from: row(top, -reach - 1), to: row(bottom, reach + 2) } };
}

/** The width over which a stroke falls off where it does so most steeply. Units: long edges. */
export function softness(stroke: Stroke): number {
  const sizes = stroke.pressure === "size" || stroke.pressure === "both";
  return (1 - stroke.hardness) * stroke.radius * (sizes ? wayOf(stroke).lightest : 1);
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

/** Visits the dabs of a way: one at its beginning, then one each step of its length. */
export function forDabs(
  path: Float64Array,
  { radius }: Pick<Brush, "radius">,
  visit: (x: number, y: number, pressure: number) => void,
  since?: Progress,
): Progress {
  const step = SPACING * radius;
  if (!since) visit(path[0]!, path[1]!, path[2]!);
  let left = since?.left ?? step;
  let i = since?.piece ?? 3;
  for (; i < path.length; i += 3) {
    const [x, y, p] = [path[i - 3]!, path[i - 2]!, path[i - 1]!];
    const [dx, dy, dp] = [path[i]! - x, path[i + 1]! - y, path[i + 2]! - p];
    const length = Math.hypot(dx, dy);
    for (; left <= length; left += step) {
      const part = left / length;
      visit(x + part * dx, y + part * dy, p + part * dp);
    }
    left -= length;
  }
  return { piece: i, left };
}

/** How far a dab acts at a distance from its middle: full inside the hard part, then a raised cosine. Units: distance in radii, 0–1 out. */
export function falloffAt(distance: number, hardness: number): number {
  if (distance >= 1) return 0;
  const away = hardness < 1 ? Math.max(distance - hardness, 0) / (1 - hardness) : 0;
  return 0.5 + 0.5 * Math.cos(Math.PI * away);
}

/** The same over the square of the distance, as a table. */
function falloffOf({ hardness }: Brush): Float32Array {
  const known = falloffs.get(hardness);
  if (known) return known;
  if (falloffs.size >= MOST_FALLOFFS) falloffs.clear();
  const table = new Float32Array(FALLOFF_STEPS + 2);
  for (let i = 0; i < FALLOFF_STEPS; i++) table[i] = falloffAt(Math.sqrt(i / FALLOFF_STEPS), hardness);
  falloffs.set(hardness, table);
  return table;
}

/** Thousands of strokes are of few hardnesses. */
const falloffs = new Map<number, Float32Array>();
const MOST_FALLOFFS = 64;

function layDab(
  plane: Float32Array,
  grid: Grid,
  x: number,
  y: number,
  radius: number,
  flow: number,
  falloff: Float32Array,
  goal: number,
): void {
  const reach = radius * grid.scale;
  // Thinner than a pixel it is drawn as wide as one, and as much weaker.
  const drawn = Math.max(reach, LEAST_RADIUS);
  const strength = flow * Math.min((reach / drawn) ** 2, 1);
  const [cx, cy] = [x * grid.scale - grid.x - 0.5, y * grid.scale - grid.y - 0.5];
  const [top, bottom] = [Math.max(Math.ceil(cy - drawn), 0), Math.min(Math.floor(cy + drawn), grid.height - 1)];
  const toStep = FALLOFF_STEPS / (drawn * drawn);
  for (let row = top; row <= bottom; row++) {
    const dy2 = (row - cy) * (row - cy);
    const half = Math.sqrt(Math.max(drawn * drawn - dy2, 0));
    const from = Math.max(Math.ceil(cx - half), 0);
    const to = Math.min(Math.floor(cx + half), grid.width - 1);
    for (let column = from, at = row * grid.width + from; column <= to; column++, at++) {
      const step = ((column - cx) * (column - cx) + dy2) * toStep;
      plane[at] = plane[at]! + (goal - plane[at]!) * strength * falloff[step | 0]!;
    }
  }
}
