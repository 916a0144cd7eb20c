import type { Stroke } from "@/core/brush/stroke";
import type { Grid } from "@/core/region/grid";
import { layBrushStrokes, rasterShape, type DrawnShape } from "@/core/region/rasterShape";
import type { BrushShape } from "@/core/region/region";

/** Bytes of laid out shapes kept. */
const MOST_BYTES = 64 << 20;
/** A brushed area keeps its state after every so many strokes, so that taking some back lays only the last few anew. */
const STROKES_BETWEEN = 250;

/** Brushed areas whose states are kept. */
const MOST_BRUSHED = 6;

interface Brushed {
  strokes: readonly Stroke[];
  /** After 0, STROKES_BETWEEN, … strokes, and after all but the last. */
  states: Map<number, Float32Array>;
}

/**
 * Shapes laid out on one grid, kept for as long as they are used. A brushed area grows by its newest stroke alone,
 * however many it has.
 */
export class ShapePlanes {
  readonly #grid: Grid;
  readonly #planes = new Map<string, Float32Array>();
  readonly #brushed = new Map<string, Brushed>();

  constructor(grid: Grid) {
    this.#grid = grid;
  }

  /** The plane of a shape; not to be changed. */
  plane(shape: DrawnShape): Float32Array {
    const key = JSON.stringify({ ...shape, id: "", combine: "" });
    const found = this.#planes.get(key) ?? (shape.kind === "brush" ? this.#grow(shape) : rasterShape(shape, this.#grid));
    this.#planes.delete(key);
    this.#planes.set(key, found); // the newest stands last
    const most = Math.max(4, Math.floor(MOST_BYTES / (4 * found.length)));
    for (const oldest of this.#planes.keys()) {
      if (this.#planes.size <= most) break;
      this.#planes.delete(oldest);
    }
    return found;
  }

  #grow(shape: BrushShape): Float32Array {
    const { id, strokes, x, y } = shape;
    const place = `${id} ${x} ${y}`;
    const known = this.#brushed.get(place) ?? {
      strokes: [],
      states: new Map([[0, new Float32Array(this.#grid.width * this.#grid.height)]]),
    };
    const same = commonStrokes(known.strokes, strokes);
    const states = new Map([...known.states].filter(([count]) => count <= same));
    let at = Math.max(...states.keys());
    const plane = states.get(at)!.slice();
    for (; at < strokes.length; at++) {
      if ((at % STROKES_BETWEEN === 0 || at === strokes.length - 1) && !states.has(at)) states.set(at, plane.slice());
      layBrushStrokes(plane, shape, [strokes[at]!], this.#grid);
    }
    // Of the states between, only the newest is of use.
    for (const count of states.keys()) if (count % STROKES_BETWEEN !== 0 && count !== strokes.length - 1) states.delete(count);
    this.#brushed.delete(place);
    this.#brushed.set(place, { strokes, states });
    for (const oldest of this.#brushed.keys()) {
      if (this.#brushed.size <= MOST_BRUSHED) break;
      this.#brushed.delete(oldest);
    }
    return plane;
  }
}

function commonStrokes(a: readonly Stroke[], b: readonly Stroke[]): number {
  let same = 0;
  while (same < a.length && same < b.length && isSame(a[same]!, b[same]!)) same++;
  return same;
}

function isSame(a: Stroke, b: Stroke): boolean {
  return (
    a.path === b.path &&
    a.radius === b.radius &&
    a.hardness === b.hardness &&
    a.flow === b.flow &&
    a.erase === b.erase &&
    a.pressure === b.pressure
  );
}
