import { formatPercent, parsePercent, ValueSlider } from "@/features/shared/ValueSlider";

interface Props {
  value: number;
  onChange(value: number): void;
  onCommit(): void;
  onCommitSoon(): void;
}

/** How much a pass or a set does: 0 to 200 %. */
export function StrengthSlider(props: Props) {
  return <ValueSlider label="Strength" min={0} max={2} step={0.01} rest={1} format={formatPercent} parse={parsePercent} {...props} />;
}
