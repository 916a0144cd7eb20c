import type { Stroke } from "@/core/brush/stroke";
import type { Plan } from "@/core/plan/plan";
import type { BrushShape, Region, Shape } from "@/core/region/region";

// A plan on its way to the worker: strokes that went there before are told by number, so that a plan of thousands is
// sent, read and compared as quickly as one of five.

interface WireStrokes {
  numbers: Int32Array;
  /** Those the other side does not know yet, in the order of their numbers. */
  fresh: Stroke[];
  /** The number of the first of them. */
  firstFresh: number;
}

type WireShape = Exclude<Shape, BrushShape> | (Omit<BrushShape, "strokes"> & { strokes: WireStrokes });
type WireRegion = Omit<Region, "shapes"> & { shapes: WireShape[] };
export type WirePlan = Omit<Plan, "regions"> & {
  regions: WireRegion[];
  /** All numbers given before are forgotten. */
  isFirst: boolean;
};

/** Strokes known to both sides at the most; then all are sent anew. */
const MOST_KNOWN = 60_000;

/** The sending side. */
export class PlanSender {
  #numbers = new WeakMap<Stroke, number>();
  #next = 0;

  pack(plan: Plan): WirePlan {
    const isFirst = this.#next === 0 || this.#next > MOST_KNOWN;
    if (isFirst) {
      this.#numbers = new WeakMap();
      this.#next = 0;
    }
    return { ...plan, regions: plan.regions.map((region) => this.#packRegion(region)), isFirst };
  }

  #packRegion(region: Region): WireRegion {
    return {
      ...region,
      shapes: region.shapes.map((shape) => (shape.kind === "brush" ? { ...shape, strokes: this.#packStrokes(shape.strokes) } : shape)),
    };
  }

  #packStrokes(strokes: readonly Stroke[]): WireStrokes {
    const firstFresh = this.#next;
    const fresh: Stroke[] = [];
    const numbers = Int32Array.from(strokes, (stroke) => {
      const known = this.#numbers.get(stroke);
      if (known !== undefined) return known;
      fresh.push(stroke);
      this.#numbers.set(stroke, this.#next);
      return this.#next++;
    });
    return { numbers, fresh, firstFresh };
  }
}

/** The receiving side; it must see every plan packed, in order. */
export class PlanReceiver {
  #strokes: Stroke[] = [];

  unpack({ isFirst, ...plan }: WirePlan): Plan {
    if (isFirst) this.#strokes = [];
    return {
      ...plan,
      regions: plan.regions.map((region) => ({ ...region, shapes: region.shapes.map((shape) => this.#unpackShape(shape)) })),
    };
  }

  #unpackShape(shape: WireShape): Shape {
    if (shape.kind !== "brush") return shape;
    const { numbers, fresh, firstFresh } = shape.strokes;
    fresh.forEach((stroke, i) => (this.#strokes[firstFresh + i] = stroke));
    return { ...shape, strokes: Array.from(numbers, (number) => this.#strokes[number]!) };
  }
}
