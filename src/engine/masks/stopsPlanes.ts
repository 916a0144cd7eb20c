import type { BorderStops, PlacedStops } from "@/core/steps/placedStops";
import { edgeShare } from "@/core/passes/edge-burn/edgeBurn";
import { frameKey, type Frame } from "@/core/frame/frame";
import type { Grid } from "@/core/spatial/grid";
import type { Size } from "@/core/spatial/areaReduce";
import { inNewState, type GrownPlane } from "../machine/grownPlane";
import { keepNewest } from "../machine/keepNewest";
import { StrokeMaps, type LayStrokes } from "./strokeMaps";

/** A pass that gives stops to places. */
export interface StopsOf {
  id: string;
  placed: PlacedStops;
  /** Of the print whose borders may place them. */
  frame: Frame;
}

/** Edge burns kept laid out: the newest few, so that a change of their stops lays nothing out anew. */
const MOST_EDGES = 4;

/** The stops that passes of one picture give to places. */
export class StopsPlanes {
  readonly strokeMaps: StrokeMaps;
  readonly #edges = new Map<string, Float32Array>();

  constructor(whole: Size) {
    this.strokeMaps = new StrokeMaps(whole);
  }

  /** In stops, for each pixel of the grid; undefined where a pass gives none. `lay` lays strokes on the grid's own pixels. */
  plane({ id, placed, frame }: StopsOf, grid: Grid, lay: LayStrokes): GrownPlane | undefined {
    if (placed.by === "strokes") return this.strokeMaps.painted(id, placed.settings, grid, lay);
    const { stops } = placed.settings;
    if (stops === 0) return undefined;
    return inNewState(this.#share(placed.settings, grid, frame).map((share) => stops * share));
  }

  #share({ x, y, begins, straight }: BorderStops, grid: Grid, frame: Frame): Float32Array {
    const key = JSON.stringify([x, y, begins, straight, grid, frameKey(frame)]);
    const plane = this.#edges.get(key) ?? edgeShare({ x, y, begins, straight }, grid, frame);
    keepNewest(this.#edges, key, plane, MOST_EDGES);
    return plane;
  }
}
