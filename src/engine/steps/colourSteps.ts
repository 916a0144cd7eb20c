import { CHANNELS } from "@/core/mix/weights";
import type { Surroundings } from "@/core/spatial/slicedBase";
import type { Spread } from "@/core/spatial/toneBase";
import type { ColourStep, ColourStepKind } from "@/core/steps/colourStep";
import type { BandMachine } from "../machine/bandMachine";
import type { BandPlace } from "../machine/surroundingsBand";
import { light } from "./light/light";
import { matrix } from "./matrix/matrix";
import { separate } from "./separate/separate";
import type { ColourStepHandler } from "./stepHandler";

/** Whoever handles each kind of step before the mix. */
export const COLOUR_STEPS: { readonly [K in ColourStepKind]: ColourStepHandler<K> } = { matrix, separate, light };

const handlerOf = <K extends ColourStepKind>(step: { kind: K }): ColourStepHandler<K> => COLOUR_STEPS[step.kind];

export const colourWeightOf = (step: ColourStep): number => handlerOf(step).weight;

/** How a step gathers surroundings of the tones as found; undefined where it looks at none. */
export function colourSpreadOf<K extends ColourStepKind>(step: ColourStep<K>): Spread | undefined {
  return handlerOf(step).spread?.(step);
}

/** Where what was is kept while a step is done. */
const WAS = { red: "hue", green: "fade", blue: "above" } as const;

/**
 * red, green, blue → what a step makes of them, so far; by the mask in the machine where it is asked for. One that looks at surroundings
 * reads them by the tone as found, which is in the machine too. hue, fade and above are anything afterwards.
 */
export function applyColourStep<K extends ColourStepKind>(
  machine: BandMachine,
  step: ColourStep<K>,
  amount: number,
  byMask: boolean,
  around: Surroundings | undefined,
  place: BandPlace,
): void {
  const { plane: p, padded: n, run } = machine;
  const handler = handlerOf(step);
  handler.ready?.(machine, step, around, place);
  const isWhole = amount === 1 && !byMask;
  if (!isWhole) for (const name of CHANNELS) machine.view(WAS[name]).set(machine.view(name));
  handler.apply(machine, step);
  if (!isWhole) run.towardsColour(p.red, p.green, p.blue, p.hue, p.fade, p.above, byMask ? p.mask : 0, amount, n);
}
