import type { StrokeStops, ExposureStroke } from "@/core/steps/placedStops";
import { softness } from "@/core/brush/layStrokes";
import type { Stroke } from "@/core/brush/stroke";
import { exposureGoal, LEAST_MAP_SOFTEN, limitedStops, strokesOf } from "@/core/passes/exposure/exposure";
import type { Grid } from "@/core/spatial/grid";
import type { BrushShape } from "@/core/region/region";
import { squareCells } from "@/core/region/squareCells";
import type { Size } from "@/core/spatial/areaReduce";
import { gaussianBlur } from "@/core/spatial/gaussianBlur";
import { layCells } from "@/core/spatial/layCells";
import { layBase } from "@/core/spatial/layBase";
import { inNewState, NO_ROWS, rowsSince, rowsTogether, type GrownPlane, type Rows } from "../machine/grownPlane";
import { keepNewest } from "../machine/keepNewest";
import { StrokePlanes } from "./strokePlanes";

/** Pictures up to this long edge have strokes laid on their own pixels, so that a dab recomputes its rectangle only. */
const LARGE_EDGE = 3000;
/** Cells over which the steepest single dab of a map falls off, to begin with. */
const CELLS_IN_SOFTNESS = 8;
/**
 * Read between its cells a map may err this much, in stops or as a part of a region: where a region at twice the strength gives or takes
 * four stops that is half a hundredth in tone.
 */
const MOST_ERROR = 0.004;
/** Read between the middles of cells a plane errs by this much of its fourth difference, along each side: measured at 0.03 to 0.045. */
const ERROR_OF_FOURTH = 1 / 20;
/** A softened map's cells to its standard deviation, and its most cells along the long edge. */
const CELLS_IN_SIGMA = 4;
const MOST_SOFT_CELLS = 1024;
/** Passes and areas whose maps are kept, and the maps they are put together from. */
const MOST_KEPT = 8;
const MOST_MIXED = 24;
/** Sizes in cells at which strokes are kept laid out: the one that serves, and the coarser ones tried before it. */
const MOST_SIZES = 4;

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
  readonly #planes = new Map<string, StrokePlanes>();
  readonly #cells = new Map<string, KnownCells>();
  /** Softened maps, and the versions of those they were made from: a plan comes with new lists of the same strokes. */
  readonly #blurred = new Map<string, { version: number; soften: number; cells: Cells }>();
  readonly #roughness = new Map<string, { version: number; most: number }>();
  /** Stops of passes on cells, and on the grids they were asked for last. */
  readonly #mixed = new Map<string, Painted>();
  readonly #painted = new Map<string, Painted>();

  constructor(whole: Size) {
    this.#whole = whole;
  }

  /** Stops painted by an exposure pass; undefined where nothing is. `lay` lays strokes on the grid's own pixels. */
  painted(id: string, settings: StrokeStops, grid: Grid, lay: LayStrokes): GrownPlane | undefined {
    if (settings.strokes.every(({ erase }) => erase)) return undefined;
    const cells = settings.soften >= LEAST_MAP_SOFTEN ? this.#softened(id, settings) : this.#paintedCells(id, settings);
    const known = this.#painted.get(id);
    const painted = cells ? readFrom(cells, settings.limit, grid, known) : putTogether(mapsOf(id, settings, lay), settings, grid, known);
    keepNewest(this.#painted, id, painted, MOST_KEPT);
    return painted;
  }

  /** A brushed area of a region on a grid; undefined where it is best laid on the grid's own pixels. */
  brushed(shape: BrushShape, grid: Grid): Float32Array | undefined {
    const cells = this.#coarseEnough(`area ${shape.id}`, shape.strokes, [shape.x, shape.y], (cells) => this.#planesOf(cells).area(shape));
    return (
      cells && layBase({ width: cells.width, height: cells.height, square: cells, slope: undefined, offset: cells.plane }, grid, undefined)
    );
  }

  #softened(id: string, settings: StrokeStops): Cells {
    const { soften, dodge, burn, strokes } = settings;
    return this.#keep(`soft ${id}`, strokes, [soften, dodge, burn], () => {
      const cells = squareCells(this.#whole, Math.min(Math.ceil(CELLS_IN_SIGMA / soften), MOST_SOFT_CELLS));
      const { plane, version } = this.#onCells(id, settings, cells);
      const known = this.#blurred.get(id);
      const blur = (): Cells => ({ ...cells, ...inNewState(gaussianBlur(plane, cells, soften * cells.scale)) });
      const blurred = known?.version === version && known.soften === soften ? known : { version, soften, cells: blur() };
      keepNewest(this.#blurred, id, blurred, MOST_KEPT);
      return blurred.cells;
    })!;
  }

  #paintedCells(id: string, settings: StrokeStops): Cells | undefined {
    const { dodge, burn, strokes } = settings;
    return this.#coarseEnough(id, strokes, [dodge, burn], (cells) => this.#onCells(id, settings, cells));
  }

  #onCells(id: string, settings: StrokeStops, cells: Grid): GrownPlane {
    const key = `${id} ${cells.width}`;
    const lay: LayStrokes = (of, strokes, goalOf) => this.#planesOf(cells).lay(of, strokes, goalOf);
    const mixed = putTogether(mapsOf(id, settings, lay), { ...settings, limit: null }, cells, this.#mixed.get(key));
    keepNewest(this.#mixed, key, mixed, MOST_MIXED);
    return mixed;
  }

  /** A map on cells that serve; undefined where the picture is small, or its own pixels are hardly finer. */
  #coarseEnough(
    id: string,
    strokes: readonly Stroke[],
    settings: readonly number[],
    layOn: (cells: Grid) => GrownPlane,
  ): Cells | undefined {
    const long = Math.max(this.#whole.width, this.#whole.height);
    if (long <= LARGE_EDGE) return undefined;
    return this.#keep(id, strokes, settings, () => {
      const softest = Math.min(...strokes.map(softness));
      for (let edge = Math.ceil(CELLS_IN_SOFTNESS / softest); 2 * edge <= long; edge *= 2) {
        const cells = squareCells(this.#whole, edge);
        const laid = { ...cells, ...layOn(cells) };
        if (ERROR_OF_FOURTH * this.#roughnessOf(`${id} ${edge}`, laid) <= MOST_ERROR) return laid;
      }
      return undefined;
    });
  }

  #roughnessOf(key: string, cells: Cells): number {
    const known = this.#roughness.get(key);
    const { most } = known?.version === cells.version ? known : { most: mostFourth(cells.plane, cells) };
    keepNewest(this.#roughness, key, { version: cells.version, most }, MOST_MIXED);
    return most;
  }

  /** Each band of an export asks for the same: the same strokes, the very same cells. */
  #keep(id: string, strokes: readonly Stroke[], settings: readonly number[], make: () => Cells | undefined): Cells | undefined {
    const key = settings.join(" ");
    const known = this.#cells.get(id);
    const kept = known?.strokes === strokes && known.settings === key ? known : { strokes, settings: key, cells: make() };
    keepNewest(this.#cells, id, kept, MOST_KEPT);
    return kept.cells;
  }

  #planesOf(cells: Grid): StrokePlanes {
    const key = `${cells.width} ${cells.height}`;
    const planes = this.#planes.get(key) ?? new StrokePlanes(cells);
    keepNewest(this.#planes, key, planes, MOST_SIZES);
    return planes;
  }
}

/** A small plane of the whole picture, on its grid. */
type Cells = GrownPlane & Grid;

interface KnownCells {
  strokes: readonly Stroke[];
  settings: string;
  /** Undefined where none serve. */
  cells: Cells | undefined;
}

/** The stops of a pass on a grid, and from which versions of what they were made. */
interface Painted extends GrownPlane {
  key: string;
  lights?: number | undefined;
  darks?: number | undefined;
  cells?: number;
}

/** Lights and darks laid out; undefined where there are none. */
interface Maps {
  lights: GrownPlane | undefined;
  darks: GrownPlane | undefined;
}

function mapsOf(id: string, settings: StrokeStops, lay: LayStrokes): Maps {
  const layMap = (burns: boolean) => {
    const strokes: ExposureStroke[] = strokesOf(settings, burns);
    return strokes.some(({ erase }) => !erase) ? lay(`${id} ${burns}`, strokes, exposureGoal) : undefined;
  };
  return { lights: layMap(false), darks: layMap(true) };
}

/** Stops read between cells. Where only strokes went on, only the rows they went over are read anew. */
function readFrom(cells: Cells, limit: number | null, grid: Grid, known: Painted | undefined): Painted {
  const key = JSON.stringify([limit, cells.width, cells.height, grid]);
  const before = known?.key === key ? known : undefined;
  const changed = before && rowsSince(cells, before.cells);
  const rows = changed && rowsReading(changed, cells, grid);
  const made = remade(before, rows, grid, (out, { from, to }) => {
    out.set(limited(layCells(cells.plane, cells, { ...grid, y: grid.y + from, height: to - from }, cells), limit));
  });
  return { ...made, key, cells: cells.version };
}

/** Stops put together from lights and darks on the grid's own pixels; the same holds. */
function putTogether(maps: Maps, { dodge, burn, limit }: StrokeStops, grid: Grid, known: Painted | undefined): Painted {
  const { lights, darks } = maps;
  const key = JSON.stringify([dodge, burn, limit, !!lights, !!darks]);
  const before = known?.key === key ? known : undefined;
  const lightRows = lights ? rowsSince(lights, before?.lights) : NO_ROWS;
  const darkRows = darks ? rowsSince(darks, before?.darks) : NO_ROWS;
  const rows = before && lightRows && darkRows && rowsTogether(lightRows, darkRows);
  const made = remade(before, rows, grid, (out, { from, to }) => {
    const part = (map: GrownPlane | undefined) => map?.plane.subarray(from * grid.width, to * grid.width);
    const [light, dark] = [part(lights), part(darks)];
    for (let i = 0; i < out.length; i++) out[i] = (light ? dodge * light[i]! : 0) - (dark ? burn * dark[i]! : 0);
    limited(out, limit);
  });
  return { ...made, key, lights: lights?.version, darks: darks?.version };
}

/** A plane as it was with some of its rows made anew, or, without rows or a plane before, all of it. */
function remade(
  before: GrownPlane | undefined,
  rows: Rows | undefined,
  { width, height }: Grid,
  make: (out: Float32Array, rows: Rows) => void,
): GrownPlane {
  if (before && rows && rows.from >= rows.to) return before;
  const plane = before && rows ? before.plane : new Float32Array(width * height);
  const { from, to } = (before && rows) ?? { from: 0, to: height };
  make(plane.subarray(from * width, to * width), { from, to });
  return inNewState(plane, before && rows && { from: before.version, rows });
}

/** A place between cells is read from as many to either side, and half of one. */
const READ_AROUND = 3.5;

/** The rows of a grid that are read from some rows of cells, or between them and their neighbours. */
function rowsReading({ from, to }: Rows, cells: Grid, { y, height, scale }: Grid): Rows {
  if (to <= from) return NO_ROWS;
  const perCell = scale / cells.scale;
  const inside = (row: number) => Math.min(Math.max(row, 0), height);
  return {
    from: inside(Math.floor((from + cells.y - READ_AROUND) * perCell - 0.5 - y)),
    to: inside(Math.ceil((to + cells.y + READ_AROUND) * perCell + 0.5 - y)),
  };
}

function limited(stops: Float32Array, limit: number | null): Float32Array {
  if (limit !== null) for (let i = 0; i < stops.length; i++) stops[i] = limitedStops(stops[i]!, limit);
  return stops;
}

/** The largest fourth differences of a plane, along rows and columns together. */
function mostFourth(plane: Float32Array, { width, height }: Size): number {
  let most = 0;
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2, i = y * width + 2; x < width - 2; x++, i++) {
      const middle = 6 * plane[i]!;
      const across = plane[i - 2]! - 4 * plane[i - 1]! + middle - 4 * plane[i + 1]! + plane[i + 2]!;
      const down = plane[i - 2 * width]! - 4 * plane[i - width]! + middle - 4 * plane[i + width]! + plane[i + 2 * width]!;
      const both = Math.abs(across) + Math.abs(down);
      if (both > most) most = both;
    }
  }
  return most;
}
