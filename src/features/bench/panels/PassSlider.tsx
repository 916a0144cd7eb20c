import type { Pass } from "@/core/passes/pass";
import { StepSlider, type StepSliderProps } from "./StepSlider";

/** A slider of a pass. `words` say what it sets where the label alone does not. */
export function PassSlider({ pass, words, ...slider }: { pass: Pass; words?: string } & StepSliderProps) {
  return <StepSlider {...slider} says={(shown) => `${words ?? slider.label} ${shown} in ${pass.name}`} />;
}
