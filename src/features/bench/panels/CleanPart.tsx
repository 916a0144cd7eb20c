import { formatPercent, parsePercent } from "@/core/text/written";
import { restingClean } from "@/core/plan/defaultPlan";
import { useBench, useBenchState } from "../state/BenchContext";
import { Part } from "./Panel";
import { StepSlider } from "./StepSlider";
import styles from "./Panel.module.css";

/** How far the colour that the mix reads is cleaned of noise and compression. */
export function CleanPart() {
  const { store, start } = useBench();
  const clean = useBenchState((state) => state.plan.mix.clean);
  const cleaning = useBenchState((state) => state.cleaning);
  return (
    <Part title="Clean colour" state={clean === 0 ? "as found" : formatPercent(clean)}>
      <StepSlider
        label="Clean"
        value={clean}
        min={0}
        max={1}
        step={0.01}
        rest={restingClean(start.picture.facts.format)}
        format={formatPercent}
        parse={parsePercent}
        onChange={(value) => store.getState().adjust((plan) => ({ ...plan, mix: { ...plan.mix, clean: value } }))}
        says={(shown) => `Colour cleaned by ${shown}`}
      />
      {clean > 0 && cleaning === "under way" && (
        <p className={styles.hint} role="status">
          The cleaned colour is being made, once for this picture; until then the print shows the colour as found.
        </p>
      )}
      {clean > 0 && cleaning === "failed" && (
        <p className={styles.hint} role="status">
          The cleaned colour could not be fetched, so the print shows the colour as found. Your print is safe; it is tried again with the
          next change.
        </p>
      )}
    </Part>
  );
}
