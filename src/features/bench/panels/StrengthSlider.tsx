import { formatPercent, parsePercent } from "@/core/text/written";
import { StepSlider } from "./StepSlider";

/** How much a pass, a set or a mix of a name does: 0 to 200 %. */
export function StrengthSlider({ of, value, onChange }: { of: string; value: number; onChange(value: number): void }) {
  return (
    <StepSlider
      label="Strength"
      value={value}
      min={0}
      max={2}
      step={0.01}
      rest={1}
      format={formatPercent}
      parse={parsePercent}
      onChange={onChange}
      says={(shown) => `${of} at ${shown}`}
    />
  );
}
