import { layStrokes, softness } from "@/core/brush/layStrokes";
import type { Stroke } from "@/core/brush/stroke";
import { exposureGoal, limitedStops, strokesOf, type ExposureSettings, type ExposureStroke } from "@/core/exposure/exposure";
import { wholeGrid, type Grid } from "@/core/region/grid";
import { brushGoal, brushGrid } from "@/core/region/rasterShape";
import type { BrushShape } from "@/core/region/region";
import { strokesKey } from "@/core/region/shapeKey";
import { scaledTo, type Size } from "@/core/spatial/areaReduce";
import { gaussianBlur } from "@/core/spatial/gaussianBlur";
import { layBase } from "@/core/spatial/layBase";
import { keepNewest } from "./keepNewest";
import { StrokePlanes } from "./strokePlanes";

/** Pictures up to this long edge have strokes laid on their own pixels, so that a dab recomputes its rectangle only. */
const LARGE_EDGE = 3000;
/** Cells over which the steepest single dab of a map falls off. */
const CELLS_IN_SOFTNESS = 12;
/** Read between its cells a map may err this much: a hundredth of a stop, or of a region. */
const MOST_ERROR = 0.01;
/** Read between the middles of cells a plane errs by an eighth of how much it bends, along each side. */
const ERROR_OF_BEND = 1 / 8;
/** A softened map's cells to its standard deviation, and its most cells along the long edge. */
const CELLS_IN_SIGMA = 4;
const MOST_SOFT_CELLS = 1024;
const MOST_KEPT = 12;

/** Strokes laid out on the pixels of a grid; `id` tells them from others. */
export type LayStrokes = <S extends Stroke>(id: string, strokes: readonly S[], goalOf: (stroke: S) => number) => Float32Array;

/**
 * Strokes of a whole picture laid over parts of it. What is softened as a whole, and what is smooth beside the pixels of a large
 * picture, is laid out once on cells no finer than it needs and read between them: 2,000 broad strokes at full size in a
 * fraction of the time, with an error that is measured and held.
 *
 * Decision  docs/decisions/0010-stroke-maps.md
 */
export class StrokeMaps {
  readonly #whole: Size;
  /** By the cells of their long edge. */
  readonly #coarse = new Map<string, StrokePlanes>();
  readonly #maps = new Map<string, Cells>();

  constructor(whole: Size) {
    this.#whole = whole;
  }

  /** Stops painted by an exposure pass; undefined where nothing is. `lay` lays strokes on the grid's own pixels. */
  painted(id: string, settings: ExposureSettings, grid: Grid, lay: LayStrokes): Float32Array | undefined {
    const { strokes, soften, limit, dodge, burn } = settings;
    if (strokes.every(({ erase }) => erase)) return undefined;
    const key = `${id} ${soften} ${dodge} ${burn} ${strokesKey(strokes)}`;
    const combined = (by: LayStrokes) => paintedPlane(id, settings, by);
    const cells = soften > 0 ? this.#softened(key, soften, combined) : this.#coarseEnough(key, strokes, combined);
    const plane = cells ? layBase({ ...cells, slope: undefined }, grid, undefined) : combined(lay);
    if (limit !== null) for (let i = 0; i < plane.length; i++) plane[i] = limitedStops(plane[i]!, limit);
    return plane;
  }

  /** A brushed area of a region on a grid; undefined where it is best laid on the grid's own pixels. */
  brushed(shape: BrushShape, grid: Grid): Float32Array | undefined {
    const { id, strokes } = shape;
    const cells = this.#coarseEnough(`${id} ${shape.x} ${shape.y} ${strokesKey(strokes)}`, strokes, (_, size) => {
      const own = brushGrid(shape, wholeGrid(size));
      const plane = new Float32Array(size.width * size.height);
      layStrokes(plane, own, strokes, brushGoal);
      return plane;
    });
    return cells && layBase({ ...cells, slope: undefined }, grid, undefined);
  }

  #softened(key: string, soften: number, combined: Combine): Cells {
    return this.#keep(key, () => {
      const size = scaledTo(this.#whole, Math.min(Math.ceil(CELLS_IN_SIGMA / soften), MOST_SOFT_CELLS));
      const plane = combined(this.#layOn(size), size);
      return { ...size, offset: gaussianBlur(plane, size, soften * Math.max(size.width, size.height)) };
    });
  }

  /** The map on cells that serve; undefined where the picture is small, or its own pixels are hardly finer. */
  #coarseEnough(key: string, strokes: readonly Stroke[], combined: Combine): Cells | undefined {
    const long = Math.max(this.#whole.width, this.#whole.height);
    if (long <= LARGE_EDGE) return undefined;
    const cells = this.#keep(key, () => {
      const softest = Math.min(...strokes.map(softness));
      for (let edge = Math.ceil(CELLS_IN_SOFTNESS / softest); 2 * edge <= long; edge *= 2) {
        const size = scaledTo(this.#whole, edge);
        const offset = combined(this.#layOn(size), size);
        if (ERROR_OF_BEND * mostBend(offset, size) <= MOST_ERROR) return { ...size, offset };
      }
      return { width: 0, height: 0, offset: NO_CELLS };
    });
    return cells.offset === NO_CELLS ? undefined : cells;
  }

  #keep(key: string, make: () => Cells): Cells {
    const cells = this.#maps.get(key) ?? make();
    keepNewest(this.#maps, key, cells, MOST_KEPT);
    return cells;
  }

  #layOn(size: Size): LayStrokes {
    const key = `${size.width} ${size.height}`;
    const planes = this.#coarse.get(key) ?? new StrokePlanes(wholeGrid(size));
    keepNewest(this.#coarse, key, planes, 2);
    return (id, strokes, goalOf) => planes.lay(id, strokes, goalOf);
  }
}

/** A small plane of the whole picture. */
interface Cells extends Size {
  offset: Float32Array;
}
const NO_CELLS = new Float32Array(0);

type Combine = (lay: LayStrokes, size: Size) => Float32Array;

/** What is painted, in stops: lights less darks, each by its strength. */
function paintedPlane(id: string, settings: ExposureSettings, lay: LayStrokes): Float32Array {
  const layMap = (burns: boolean) => {
    const strokes: ExposureStroke[] = strokesOf(settings, burns);
    return strokes.some(({ erase }) => !erase) ? lay(`${id} ${burns}`, strokes, exposureGoal) : undefined;
  };
  const { dodge, burn } = settings;
  const [lights, darks] = [layMap(false), layMap(true)];
  const out = new Float32Array((lights ?? darks)!.length);
  if (lights) for (let i = 0; i < out.length; i++) out[i] = dodge * lights[i]!;
  if (darks) for (let i = 0; i < out.length; i++) out[i] = out[i]! - burn * darks[i]!;
  return out;
}

/** How much a plane bends at the most, from cell to cell: second differences along rows and columns together. */
function mostBend(plane: Float32Array, { width, height }: Size): number {
  let most = 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      const middle = 2 * plane[i]!;
      const bend = Math.abs(plane[i - 1]! - middle + plane[i + 1]!) + Math.abs(plane[i - width]! - middle + plane[i + width]!);
      if (bend > most) most = bend;
    }
  }
  return most;
}
