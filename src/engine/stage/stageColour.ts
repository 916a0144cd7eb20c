import type { Part } from "../machine/grainMachine";
import { emptyPlanes, type Planes } from "@/core/kernels/planes";
import type { CompiledColour, CompiledPlan } from "@/core/plan/compilePlan";
import type { Grid } from "@/core/spatial/grid";
import { surroundingsOf, type Surroundings } from "@/core/spatial/slicedBase";
import { NO_COLOUR_BASES, spreadKey, type ColourBases } from "../evaluate/bases";
import { outputs, inputs } from "../tasks/bands";
import { input } from "../tasks/taskPlanes";
import { colourLooksAtWhole } from "../masks/maskKeys";
import type { Analysis } from "../masks/maskBases";
import type { Source } from "../source/source";
import { StageMasks } from "../masks/stageMasks";

/** Masks before the mix read the picture as found but for its spots and what is cleaned of its colours, whatever is mixed. */
const beforeMix = ({ spotsKey, clean }: Pick<CompiledPlan, "spotsKey" | "clean">) => `as found ${spotsKey} ${clean}`;

/**
 * The colour that a stage mixes: what its source has, cleaned so far, and changed by the plan's passes before the mix. Kept for as long as
 * these stay.
 *
 * Memory  12 bytes a pixel once there are such passes, with grain 24.
 */
export class StageColour {
  readonly #source: Source;
  readonly masks: StageMasks;
  readonly #kept = new Map<Part, { key: string; planes: Planes }>();
  /** By how wide they are, of the picture with so much covered. */
  #around = new Map<string, Surroundings>();
  #aroundKey = "";
  #clean = 0;

  constructor(source: Source, grid: Grid) {
    this.#source = source;
    const seen = (of: Source, part?: Part) => of.seenBeforeMix(part, this.#clean);
    const analysis = (): Analysis => ({ ...source.small.size, ...seen(source.small) });
    this.masks = new StageMasks(grid, (part) => seen(source, part), analysis, source.laid);
    this.#follow({ colour: [], spotsKey: "", clean: 0 });
  }

  #follow(plan: Pick<CompiledPlan, "colour" | "spotsKey" | "clean">): void {
    this.#clean = plan.clean;
    this.masks.follow({ passes: plan.colour }, beforeMix(plan), plan.clean);
  }

  /** What a part of the picture needs to change colour as the whole does. */
  get bases(): ColourBases {
    return { masks: this.masks.bases, around: this.#around };
  }

  /** The colour to be mixed of a part of the pixels. Not to be changed. */
  of(part: Part, plan: CompiledPlan, given?: ColourBases): Planes {
    this.#source.heal(plan);
    this.#follow(plan);
    const found = this.#source.colourToMix(part, plan.clean);
    if (plan.colour.length === 0) {
      this.#kept.clear();
      return found;
    }
    const known = this.#kept.get(part);
    const key = `${plan.spotsKey} ${plan.clean} ${plan.colourKey}`;
    if (known?.key === key) return known.planes;
    const planes = known?.planes ?? emptyPlanes(this.#source.pixels);
    this.#kept.set(part, { key, planes });
    this.#source.forgetHues(planes);
    this.#change(part, plan.colour, found, given ?? this.gather(plan), planes);
    return planes;
  }

  /** What a plan's passes need of the whole picture, which this is, with its spots covered. */
  gather(plan: CompiledPlan): ColourBases {
    const { colour, spotsKey } = plan;
    this.#follow(plan);
    if (!colour.some(colourLooksAtWhole)) return NO_COLOUR_BASES;
    const masks = this.masks.gather();
    const { size } = this.#source;
    const gather = surroundingsOf(this.#source.plainTones(undefined), size);
    const around = new Map<string, Surroundings>();
    const known = this.#aroundKey === spotsKey ? this.#around : around;
    for (const { step } of colour) {
      if (step.kind !== "light" || !step.around) continue;
      const { spread } = step.around;
      around.set(spreadKey(spread), known.get(spreadKey(spread)) ?? gather(spread));
    }
    this.#around = around;
    this.#aroundKey = spotsKey;
    return { masks, around };
  }

  #change(part: Part, passes: readonly CompiledColour[], found: Planes, bases: ColourBases, out: Planes): void {
    const source = this.#source;
    const looksAround = passes.some(({ step }) => step.kind === "light" && step.around);
    source.perform("colour", {
      place: { ...source.place, width: source.size.width },
      toP3: source.toP3,
      passes: passes.map(({ step, strength }) => ({ step, strength })),
      masks: passes.map(({ mask }) => mask && input(this.masks.mask(mask, bases.masks, part))),
      around: bases.around,
      found: inputs(found),
      tones: looksAround ? input(source.plainTones(part)) : undefined,
      changed: outputs(out),
    });
  }
}
