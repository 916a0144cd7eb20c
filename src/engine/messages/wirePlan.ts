import type { Stroke } from "@/core/brush/stroke";
import { mapStrokes } from "@/core/plan/mapStrokes";
import type { Plan } from "@/core/plan/plan";

// A plan on its way to the worker: strokes that went there before are told by number, so that a plan of thousands is
// sent, read and compared as quickly as one of five.

interface WireStrokes {
  numbers: Int32Array;
  /** Those the other side does not know yet, in the order of their numbers. */
  fresh: Stroke[];
  /** The number of the first of them. */
  firstFresh: number;
}

export interface WirePlan {
  /** The plan with WireStrokes where its strokes were. */
  packed: unknown;
  /** All numbers given before are forgotten. */
  isFirst: boolean;
}

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
    return { packed: mapStrokes(plan, (strokes) => this.#packStrokes(strokes)), isFirst };
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

  unpack({ packed, isFirst }: WirePlan): Plan {
    if (isFirst) this.#strokes = [];
    return mapStrokes(packed as Plan, (strokes) => this.#unpackStrokes(strokes as unknown as WireStrokes)) as Plan;
  }

  #unpackStrokes({ numbers, fresh, firstFresh }: WireStrokes): Stroke[] {
    fresh.forEach((stroke, i) => (this.#strokes[firstFresh + i] = stroke));
    return Array.from(numbers, (number) => this.#strokes[number]!);
  }
}
