import { layStrokes } from "@/core/brush/layStrokes";
import type { Stroke } from "@/core/brush/stroke";
import type { Grid } from "@/core/region/grid";
import { rasterShape, type DrawnShape } from "@/core/region/rasterShape";
import type { BrushShape } from "@/core/region/region";

/** Bytes of laid out shapes kept. */
const MOST_BYTES = 64 << 20;
/** A brushed area keeps its state after every so many strokes, so that taking some back lays only the last few anew. */
const STROKES_BETWEEN = 250;

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
    const { id: _, combine: __, ...drawn } = shape;
    const key = JSON.stringify(drawn);
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

  #grow({ id, strokes }: BrushShape): Float32Array {
    const known = this.#brushed.get(id) ?? { strokes: [], states: new Map([[0, new Float32Array(this.#grid.width * this.#grid.height)]]) };
    const same = commonStrokes(known.strokes, strokes);
    const states = new Map([...known.states].filter(([count]) => count <= same));
    let at = Math.max(...states.keys());
    const plane = states.get(at)!.slice();
    for (; at < strokes.length; at++) {
      if ((at % STROKES_BETWEEN === 0 || at === strokes.length - 1) && !states.has(at)) states.set(at, plane.slice());
      layStrokes(plane, this.#grid, [strokes[at]!], ({ erase }) => (erase ? 0 : 1));
    }
    // Of the states between, only the newest is of use.
    for (const count of states.keys()) if (count % STROKES_BETWEEN !== 0 && count !== strokes.length - 1) states.delete(count);
    this.#brushed.delete(id);
    this.#brushed.set(id, { strokes, states });
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
