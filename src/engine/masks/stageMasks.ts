import { readTable } from "@/core/kernels/pairTable";
import type { Part } from "../machine/grainMachine";
import type { CompiledMask } from "@/core/plan/compilePlan";
import type { Grid } from "@/core/spatial/grid";
import { rasterShape, type DrawnShape } from "@/core/region/rasterShape";
import { layBase } from "@/core/spatial/layBase";
import type { GrownPlane } from "../machine/grownPlane";
import { keepNewest } from "../machine/keepNewest";
import { gateBase, gatherMaskBases, type Analysis } from "./maskBases";
import { isGatheredOnTheWay, isReadOnTheWay, needsBases, withItsSet, type MaskBases } from "./maskKeys";
import { gateTableOf, maskPlane, multiplyBy, repairPlane, type MaskPicture } from "./maskPlane";
import { StopsPlanes, type StopsOf } from "./stopsPlanes";
import { StrokePlanes } from "./strokePlanes";

/** A mask as a whole: where, and on which of the tones that enter the first pass in hand. */
export interface ShownMask {
  mask: CompiledMask | undefined;
  /** How far each tone is let through, over tone 0–1; absent where all are. */
  reach: Float32Array | undefined;
  /** Whether it is of a pass before the mix, which sees the picture as found. */
  beforeMix?: boolean;
}

/** Planes of a source by what they are of. */
export interface LaidPlanes {
  shapes: Map<string, Float32Array>;
  masks: Map<string, Float32Array>;
}

/** Bytes of mask planes kept, and of the shapes they are made of. */
const MOST_MASK_BYTES = 96 << 20;
const MOST_SHAPE_BYTES = 64 << 20;
const NONE: MaskBases = new Map();

/** Passes by where they act. */
interface Masked {
  passes: readonly { mask: CompiledMask | undefined }[];
}

/** The masks and maps of stops of one stage: laid out when they are asked for, and kept for as long as they are used. */
export class StageMasks {
  readonly #grid: Grid;
  readonly #picture: (part: Part) => MaskPicture;
  readonly #analysis: () => Analysis;
  readonly #laid: LaidPlanes;
  readonly #strokes: StrokePlanes;
  readonly #stops: StopsPlanes;
  #bases: { mixKey: string; bases: MaskBases } = { mixKey: "", bases: NONE };
  #plan: Masked | undefined;
  #mixKey = "";
  #clean = 0;

  /** `analysis` gives the whole picture small, as the masks are to see it: what they are gathered from. */
  constructor(grid: Grid, picture: (part: Part) => MaskPicture, analysis: () => Analysis, laid: LaidPlanes) {
    this.#grid = grid;
    this.#picture = picture;
    this.#analysis = analysis;
    this.#laid = laid;
    this.#strokes = new StrokePlanes(grid);
    this.#stops = new StopsPlanes(grid.whole);
  }

  /** From now on masks are those of this plan; equal keys, equal mixes. `clean`: how far the colours it sees are cleaned. */
  follow(plan: Masked, mixKey: string, clean: number): void {
    this.#plan = plan;
    this.#mixKey = mixKey;
    this.#clean = clean;
  }

  /** What is known of the whole picture for the masks of the plan. */
  get bases(): MaskBases {
    return this.#bases.bases;
  }

  /** What the plan's masks, and those given, need of the whole picture; gathered from it small. */
  gather(more: readonly CompiledMask[] = []): MaskBases {
    const plan = this.#plan!;
    const masks = [...plan.passes.flatMap(({ mask }) => mask ?? []), ...more].filter(needsBases);
    if (masks.length === 0) return NONE;
    const analysis = this.#analysis();
    const known = this.#bases.mixKey === this.#mixKey ? this.#bases.bases : NONE;
    this.#bases = { mixKey: this.#mixKey, bases: gatherMaskBases(masks, analysis, known) };
    return this.#bases.bases;
  }

  /** A mask as far as place and original tell it. Not to be changed. */
  mask(mask: CompiledMask, given?: MaskBases, part?: Part): Float32Array {
    const key = this.#keyOf(mask, part);
    const plane = this.#laid.masks.get(key) ?? this.#within(maskPlane(...this.#parts(mask, given, part)), mask, given, part);
    this.#keepMask(key, plane);
    return plane;
  }

  /** A plane as far as the mask of its set lets it through, in place. */
  #within(plane: Float32Array, { within }: CompiledMask, given?: MaskBases, part?: Part): Float32Array {
    if (within) multiplyBy(plane, this.mask(within, given, part));
    return plane;
  }

  /** The same where it lies laid out already, else undefined. */
  laidMask(mask: CompiledMask): Float32Array | undefined {
    return this.#laid.masks.get(this.#keyOf(mask));
  }

  /** What strokes on a mask's gate let through besides; kept as masks are. */
  repair(mask: CompiledMask, given?: MaskBases): Float32Array | undefined {
    if (mask.gate?.source !== "entering" || mask.gate.repair.length === 0) return undefined;
    const key = `repair ${this.#mixKey} ${mask.key}`;
    const known = this.#laid.masks.get(key);
    if (known) return known;
    const made = repairPlane(...this.#parts(mask, given));
    if (made) this.#keepMask(key, this.#within(made, mask, given));
    return made;
  }

  /** A mask with all it depends on, 0–1 for each pixel: on the tones that enter a step, whose blurred gate may be given. */
  shown({ mask, reach }: ShownMask, entering: Float32Array, given: MaskBases | undefined, gate: Analysed["gate"]): Float32Array {
    const plane = mask ? this.mask(mask, given).slice() : new Float32Array(entering.length).fill(1);
    const multiply = (by: (i: number) => number) => {
      for (let i = 0; i < plane.length; i++) plane[i] = plane[i]! * by(i);
    };
    if (mask && isGatheredOnTheWay(mask.gate)) {
      const shares = layBase(gate ?? gateBase(mask.gate, entering, this.#grid), this.#grid, undefined);
      multiply((i) => shares[i]!);
    }
    if (isReadOnTheWay(mask?.gate)) {
      const table = gateTableOf(mask.gate);
      multiply((i) => readTable(table, entering[i]!));
    }
    const added = mask && this.repair(mask, given);
    if (added) for (let i = 0; i < plane.length; i++) plane[i] = plane[i]! + added[i]!;
    if (reach) multiply((i) => readTable(reach, entering[i]!));
    return plane;
  }

  /** The stops a pass gives to places; undefined where it gives none. */
  stops(of: StopsOf): GrownPlane | undefined {
    return this.#stops.plane(of, this.#grid, (id, strokes, goalOf) => this.#strokes.lay(id, strokes, goalOf));
  }

  #parts(mask: CompiledMask, given: MaskBases | undefined, part?: Part): Parameters<typeof maskPlane> {
    const bases = given ?? (needsBases(mask) ? this.gather([mask]) : NONE);
    return [mask, this.#grid, this.#picture(part), bases, (shape, own) => (own ? this.#shape(shape).slice() : this.#shape(shape))];
  }

  #keyOf(mask: CompiledMask, part?: Part): string {
    const gates = withItsSet(mask).flatMap(({ gate }) => gate ?? []);
    const seesMix = needsBases(mask) || gates.some(({ source }) => source === "mixed");
    const seesPart = seesMix || gates.some(({ source, hue }) => source !== "entering" || hue);
    return `${(seesPart && part) || ""} ${seesPart ? this.#clean : ""} ${seesMix ? this.#mixKey : ""} ${mask.key}`;
  }

  #keepMask(key: string, plane: Float32Array): void {
    keepNewest(this.#laid.masks, key, plane, Math.max(2, Math.floor(MOST_MASK_BYTES / (4 * plane.length))));
  }

  #shape(shape: DrawnShape): Float32Array {
    if (shape.kind === "brush") return this.#stops.strokeMaps.brushed(shape, this.#grid) ?? this.#strokes.area(shape).plane;
    const key = JSON.stringify({ ...shape, id: "", combine: "" });
    const plane = this.#laid.shapes.get(key) ?? rasterShape(shape, this.#grid);
    keepNewest(this.#laid.shapes, key, plane, Math.max(4, Math.floor(MOST_SHAPE_BYTES / (4 * plane.length))));
    return plane;
  }
}

/** What a step gathered of the tones that enter it. */
type Analysed = { gate: Parameters<typeof layBase>[0] | undefined };
