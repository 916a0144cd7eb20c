import { hueName } from "@/core/mix/hueCurve";
import { hueOfChroma } from "@/core/passes/tint/tintLine";
import { toneToStops } from "@/core/colour/lstar";
import { formatStops, formatZone, LAST_ZONE, toThird } from "@/core/zones/zone";
import { useBenchState } from "../state/BenchContext";
import styles from "./Easel.module.css";

/** Fainter than this no colour is seen. */
const LEAST_PRINTED = 0.002;
/** Let through less than this, a change is not seen. */
const LEAST_MASKED = 0.02;

/** What lies under the pointer: zone now and before the step in hand, L*, stops from Zone V, source colour. */
export function Readout() {
  const reading = useBenchState((state) => state.reading);
  if (!reading) return null;
  const { entering, leaving, painted, masked, printed, chroma, hueDeg } = reading;
  const onPrint = printed && hueOfChroma(printed);
  const now = formatZone(toThird(leaving * LAST_ZONE));
  const was = formatZone(toThird(entering * LAST_ZONE));
  return (
    <div className={styles.readout} role="status" aria-live="off" data-testid="readout">
      <span>
        <b>{now}</b>
        {was !== now && ` was ${was}`}
      </span>
      <span>L* {(100 * leaving).toFixed(1)}</span>
      <span>{formatStops(toThird(toneToStops(leaving)))} from V</span>
      {painted !== undefined && <span>{formatStops(Math.round(painted * 100) / 100)} painted</span>}
      {masked !== undefined && masked < LEAST_MASKED && <span>outside this pass</span>}
      {onPrint && onPrint.chroma >= LEAST_PRINTED && (
        <span>
          printed {hueName(onPrint.hueDeg)} {Math.round(onPrint.hueDeg)}°, {(100 * onPrint.chroma).toFixed(1)}
        </span>
      )}
      <span>{chroma < 0.01 ? "neutral" : `${hueName(hueDeg)}, chroma ${chroma.toFixed(2)}`}</span>
    </div>
  );
}
