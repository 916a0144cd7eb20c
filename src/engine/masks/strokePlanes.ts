import type { ExposureStroke } from "@/core/steps/placedStops";
import { layOn, layStroke, type StrokeProgress } from "@/core/brush/layStrokes";
import type { Stroke } from "@/core/brush/stroke";
import { StrokePlane } from "@/core/brush/strokePlane";
import type { Grid } from "@/core/spatial/grid";
import { inNewState, type GrownPlane } from "../machine/grownPlane";
import { keepNewest } from "../machine/keepNewest";
import { brushGoal, brushGrid } from "@/core/region/rasterShape";
import type { BrushShape } from "@/core/region/region";

/** Brushed areas whose states are kept. */
const MOST_BRUSHED = 24;
/** A brushed area keeps its state after every so many strokes, so that taking some back lays only the last few anew. */
const STROKES_BETWEEN = 500;

interface Brushed extends GrownPlane {
  strokes: readonly Stroke[];
  /** After 0, STROKES_BETWEEN, … strokes. */
  states: Map<number, StrokePlane>;
  /** After all but the last stroke. */
  beforeLast: StrokePlane;
  /** After all of them: what `plane` is of. */
  laid: StrokePlane;
  /** How far the last stroke is laid. */
  progress: StrokeProgress | undefined;
}

/**
 * Strokes laid out on one grid, kept for as long as they are used: a map grows by what its newest stroke grows,
 * however many it has.
 */
export class StrokePlanes {
  readonly #grid: Grid;
  readonly #brushed = new Map<string, Brushed>();

  constructor(grid: Grid) {
    this.#grid = grid;
  }

  /** The plane of strokes; `id` tells them from others. */
  lay<S extends Stroke>(id: string, strokes: readonly S[], goalOf: (stroke: S) => number): GrownPlane {
    return this.#laidOn(id, this.#grid, strokes, goalOf as (stroke: Stroke) => number);
  }

  /** The plane of a brushed area of a region. */
  area(shape: BrushShape): GrownPlane {
    return this.#laidOn(`${shape.id} ${shape.x} ${shape.y}`, brushGrid(shape, this.#grid), shape.strokes, brushGoal);
  }

  #laidOn(place: string, grid: Grid, strokes: readonly Stroke[], goalOf: (stroke: Stroke) => number): GrownPlane {
    const known = this.#brushed.get(place);
    const brushed = (known && grown(known, grid, strokes, goalOf)) ?? this.#laid(known, grid, strokes, goalOf);
    keepNewest(this.#brushed, place, brushed, MOST_BRUSHED);
    return brushed;
  }

  /** All strokes laid, from the last state that still holds on. */
  #laid(known: Brushed | undefined, grid: Grid, strokes: readonly Stroke[], goalOf: (stroke: Stroke) => number): Brushed {
    const same = known ? commonStrokes(known.strokes, strokes) : 0;
    const states = new Map([...(known?.states ?? [])].filter(([count]) => count <= same));
    let at = Math.max(0, ...states.keys());
    let plane = states.get(at)?.copy() ?? new StrokePlane(new Float32Array(this.#grid.width * this.#grid.height));
    if (known && same >= known.strokes.length - 1 && known.strokes.length - 1 > at && strokes.length >= known.strokes.length) {
      // Most often one stroke follows another: what lay before the last one still holds.
      at = known.strokes.length - 1;
      plane = known.beforeLast;
    }
    for (; at < strokes.length - 1; at++) {
      if (at % STROKES_BETWEEN === 0 && !states.has(at)) states.set(at, plane.copy());
      layOn(plane, grid, [strokes[at]!], goalOf);
    }
    const last = strokes.at(-1);
    const beforeLast = plane;
    const laid = plane.copy();
    const progress = last && layStroke(laid, grid, last, goalOf(last)).progress;
    return { ...inNewState(laid.plane), laid, strokes, states, beforeLast, progress };
  }
}

/** The area as it is, or with its last stroke gone on; undefined where more than that changed. */
function grown(known: Brushed, grid: Grid, strokes: readonly Stroke[], goalOf: (stroke: Stroke) => number): Brushed | undefined {
  if (strokes.length !== known.strokes.length || commonStrokes(known.strokes, strokes) < strokes.length - 1) return undefined;
  const [last, before] = [strokes.at(-1), known.strokes.at(-1)];
  if (!last || !before) return known;
  if (isSame(last, before)) return known;
  if (!isSame({ ...last, path: "" }, { ...before, path: "" }) || !last.path.startsWith(before.path)) return undefined;
  const { progress, rows } = layStroke(known.laid, grid, last, goalOf(last), known.progress);
  return { ...known, ...inNewState(known.plane, { from: known.version, rows }), strokes, progress };
}

function commonStrokes(a: readonly Stroke[], b: readonly Stroke[]): number {
  let same = 0;
  while (same < a.length && same < b.length && isSame(a[same]!, b[same]!)) same++;
  return same;
}

function isSame(a: Stroke, b: Stroke): boolean {
  if (a === b) return true;
  return (
    a.path === b.path &&
    a.radius === b.radius &&
    a.hardness === b.hardness &&
    a.flow === b.flow &&
    a.erase === b.erase &&
    a.pressure === b.pressure &&
    sameExposure(a, b)
  );
}

/** Of strokes that dodge and burn, what those have besides. */
function sameExposure(a: Partial<ExposureStroke>, b: Partial<ExposureStroke>): boolean {
  return a.burns === b.burns && a.ceiling === b.ceiling;
}
