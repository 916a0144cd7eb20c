import { BOTTOM, HANDLE_INSET, thread, TOP, type X } from "../../scale/scaleGeometry";
import styles from "../../scale/Scale.module.css";
import type { Zone } from "@/core/units";

/** The zone a contrast turns around, on both rails. */
export function Pivot({ zone, x }: { zone: Zone; x: X }) {
  return (
    <g className={styles.chosenStrand} data-testid="pivot">
      <path d={thread(x(zone), x(zone))} className={styles.strandLine} />
      {[TOP + HANDLE_INSET, BOTTOM - HANDLE_INSET].map((y) => (
        <path key={y} d="M0,-7L5.5,0L0,7L-5.5,0Z" transform={`translate(${x(zone)},${y})`} className={styles.solid} />
      ))}
    </g>
  );
}
