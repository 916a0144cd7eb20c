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
import { inNewState, NO_ROWS, rowsSince, rowsTogether, type GrownPlane } from "./grownPlane";
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
/** Passes whose stops are kept put together. */
const MOST_PAINTED = 8;

/** Strokes laid out on the pixels of a grid; `id` tells them from others. */
export type LayStrokes = <S extends Stroke>(id: string, strokes: readonly S[], goalOf: (stroke: S) => number) => GrownPlane;

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
  readonly #painted = new Map<string, Painted>();

  constructor(whole: Size) {
    this.#whole = whole;
  }

  /** Stops painted by an exposure pass; undefined where nothing is. `lay` lays strokes on the grid's own pixels. */
  painted(id: string, settings: ExposureSettings, grid: Grid, lay: LayStrokes): GrownPlane | undefined {
    const { strokes, soften, limit, dodge, burn } = settings;
    if (strokes.every(({ erase }) => erase)) return undefined;
    const key = () => `${id} ${soften} ${dodge} ${burn} ${strokesKey(strokes)}`; // long for thousands: made where it is used
    const onCells = (by: LayStrokes, size: Size) =>
      combined(mapsOf(id, settings, by), settings, new Float32Array(size.width * size.height));
    const cells = soften > 0 ? this.#softened(key(), soften, onCells) : this.#coarseEnough(key, strokes, onCells);
    const known = this.#painted.get(id);
    const painted = cells
      ? laidFromCells(cells, `${key()} ${limit} ${JSON.stringify(grid)}`, limit, grid, known)
      : laidOnPixels(mapsOf(id, settings, lay), settings, grid, known);
    keepNewest(this.#painted, id, painted, MOST_PAINTED);
    return painted;
  }

  /** A brushed area of a region on a grid; undefined where it is best laid on the grid's own pixels. */
  brushed(shape: BrushShape, grid: Grid): Float32Array | undefined {
    const { id, strokes } = shape;
    const cells = this.#coarseEnough(
      () => `${id} ${shape.x} ${shape.y} ${strokesKey(strokes)}`,
      strokes,
      (_, size) => {
        const own = brushGrid(shape, wholeGrid(size));
        const plane = new Float32Array(size.width * size.height);
        layStrokes(plane, own, strokes, brushGoal);
        return plane;
      },
    );
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
  #coarseEnough(key: () => string, strokes: readonly Stroke[], combined: Combine): Cells | undefined {
    const long = Math.max(this.#whole.width, this.#whole.height);
    if (long <= LARGE_EDGE) return undefined;
    const cells = this.#keep(key(), () => {
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

/** The stops of a pass put together, and from what. */
interface Painted extends GrownPlane {
  key: string;
  /** Versions of the maps it was put together from. */
  lights?: number | undefined;
  darks?: number | undefined;
}

/** Lights and darks laid out; undefined where there are none. */
interface Maps {
  lights: GrownPlane | undefined;
  darks: GrownPlane | undefined;
}

function mapsOf(id: string, settings: ExposureSettings, lay: LayStrokes): Maps {
  const layMap = (burns: boolean) => {
    const strokes: ExposureStroke[] = strokesOf(settings, burns);
    return strokes.some(({ erase }) => !erase) ? lay(`${id} ${burns}`, strokes, exposureGoal) : undefined;
  };
  return { lights: layMap(false), darks: layMap(true) };
}

function laidFromCells(cells: Cells, key: string, limit: number | null, grid: Grid, known: Painted | undefined): Painted {
  if (known?.key === key) return known;
  return { ...inNewState(limited(layBase({ ...cells, slope: undefined }, grid, undefined), limit)), key };
}

/** Where only strokes went on, only the rows they went over are put together anew. */
function laidOnPixels(maps: Maps, settings: ExposureSettings, { width, height }: Grid, known: Painted | undefined): Painted {
  const { lights, darks } = maps;
  const key = JSON.stringify([settings.dodge, settings.burn, settings.limit, !!lights, !!darks]);
  const before = known?.key === key ? known : undefined;
  const lightRows = lights ? rowsSince(lights, before?.lights) : NO_ROWS;
  const darkRows = darks ? rowsSince(darks, before?.darks) : NO_ROWS;
  const rows = before && lightRows && darkRows && rowsTogether(lightRows, darkRows);
  if (before && rows && rows.from >= rows.to) return before;
  const plane = before && rows ? before.plane : new Float32Array(width * height);
  const { from, to } = rows ?? { from: 0, to: height };
  limited(combined(maps, settings, plane.subarray(from * width, to * width), from * width), settings.limit);
  return {
    ...inNewState(plane, before && rows && { from: before.version, rows }),
    key,
    lights: lights?.version,
    darks: darks?.version,
  };
}

/** What is painted, in stops: lights less darks, each by its strength, on the pixels of the maps from one on. */
function combined(maps: Maps, { dodge, burn }: ExposureSettings, out: Float32Array, from = 0): Float32Array {
  const [lights, darks] = [maps.lights, maps.darks].map((map) => map?.plane.subarray(from, from + out.length));
  for (let i = 0; i < out.length; i++) out[i] = (lights ? dodge * lights[i]! : 0) - (darks ? burn * darks[i]! : 0);
  return out;
}

function limited(stops: Float32Array, limit: number | null): Float32Array {
  if (limit !== null) for (let i = 0; i < stops.length; i++) stops[i] = limitedStops(stops[i]!, limit);
  return stops;
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
