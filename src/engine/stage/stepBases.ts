import { detailOf } from "@/core/spatial/detail";
import type { Size } from "@/core/spatial/areaReduce";
import { surroundingsOf } from "@/core/spatial/slicedBase";
import type { StepBase } from "../evaluate/bases";
import { spreadsOf } from "../steps/steps";
import { gateBase } from "../masks/maskBases";
import { isGatheredOnTheWay } from "../masks/maskKeys";
import type { Run } from "../evaluate/runs";

/** The tones that enter a step: what tells them (equal keys, equal tones), and the tones themselves once they are wanted. */
export interface Entering {
  key: string;
  tones: () => Float32Array;
}

/** What the steps of a plan need of the whole of the tones that enter them, found anew only where those changed. */
export class StepBases {
  readonly #bases = new Map<number, { key: string; gathered: Gathered; base: StepBase }>();
  /** How far the tones that enter passes lie from those close around them. */
  readonly #details = new Map<number, { key: string; plane: Float32Array }>();

  /** `longEdge` is that of the whole picture, of which `size` may be a part. */
  constructor(
    readonly size: Size,
    readonly longEdge: number,
  ) {}

  /** Of each step, as far as it was gathered. */
  all(): Map<number, StepBase> {
    return new Map([...this.#bases].map(([step, { base }]) => [step, base]));
  }

  /** Forgets all steps but these. */
  keep(steps: ReadonlySet<number>): void {
    for (const kept of [this.#bases, this.#details]) for (const step of kept.keys()) if (!steps.has(step)) kept.delete(step);
  }

  /** What a run looks at: the surroundings of its tones, and the gate that is blurred on the way. */
  gather({ from, steps, mask }: Run, { key, tones }: Entering): StepBase {
    const tone = tones();
    const around = surroundingsOf(tone, this.size);
    const known = this.#bases.get(from);
    const gathered: Gathered = new Map();
    const gather = <T>(how: object, make: () => T): T => {
      const name = JSON.stringify(how);
      gathered.set(name, (known?.key === key && known.gathered.get(name)) || make());
      return gathered.get(name) as T;
    };
    const gate = isGatheredOnTheWay(mask?.gate) ? mask.gate : undefined;
    const base = {
      surroundings: steps.flatMap((step) => spreadsOf(step) ?? []).map((spread) => gather(spread, () => around(spread))),
      gate: gate && gather(gate, () => gateBase(gate, tone, this.size)),
    };
    this.#bases.set(from, { key, gathered, base });
    return base;
  }

  /** How far the tones that enter a step lie from those close around them. Units: radius in long edges. */
  differences(step: number, radius: number, { key, tones }: Entering): Float32Array {
    const name = `${key} ${radius}`;
    const known = this.#details.get(step);
    if (known?.key === name) return known.plane;
    const plane = detailOf(tones(), this.size, radius * this.longEdge);
    this.#details.set(step, { key: name, plane });
    return plane;
  }
}

/** What was gathered of tones, by how. */
type Gathered = Map<string, unknown>;
