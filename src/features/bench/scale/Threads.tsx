import { findStrain, type Strain } from "@/core/passes/placement/findStrain";
import type { ZoneCurve } from "@/core/steps/zoneCurve";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import { useBenchState } from "../state/BenchContext";
import { BOTTOM, LEFT, RAIL, thread, TOP, type X } from "./scaleGeometry";
import styles from "./Scale.module.css";
import type { Tone } from "@/core/units";

const THREADS = 6 * LAST_ZONE;

/** Where tones go: fine threads between the rails, and a word where they are strained. */
export function Threads({ curve, x }: { curve: ZoneCurve; x: X }) {
  const strain = findStrain(curve);
  const paths = { calm: "", merging: "", tearing: "" };
  for (let i = 0; i <= THREADS; i++) {
    const zone = (i / THREADS) * LAST_ZONE;
    const kind = strain.find((stretch) => zone >= stretch.from && zone <= stretch.to)?.kind ?? "calm";
    paths[kind] += thread(x(zone), x(curve(zone)));
  }
  return (
    <>
      <g className={styles.threads} data-testid="threads">
        <path d={paths.calm} />
        <path d={paths.merging} className={styles.merging} />
        <path d={paths.tearing} className={styles.tearing} />
      </g>
      <StrainWords strain={strain} x={x} />
    </>
  );
}

const STRAIN_WORDS = {
  merging: { what: "tones draw together", todo: "place the strands there further apart" },
  tearing: { what: "tones are pulled apart", todo: "place the strands there closer" },
} as const;

function StrainWords({ strain, x }: { strain: Strain[]; x: X }) {
  const widest = strain.toSorted((a, b) => b.to - b.from - (a.to - a.from))[0];
  if (!widest) return null;
  const { what, todo } = STRAIN_WORDS[widest.kind];
  const middle = Math.min(Math.max(x((widest.from + widest.to) / 2), LEFT + 200), x(LAST_ZONE) - 200);
  return (
    <text className={styles.strain} x={middle} y={TOP + 27} data-testid="strain">
      {`${formatZone(widest.from)} to ${formatZone(widest.to)}: ${what}; ${todo}`}
    </text>
  );
}

/** The tone under the pointer, on both rails. */
export function ReadingMarks({ x, both }: { x: X; both: boolean }) {
  const reading = useBenchState((state) => state.reading);
  if (!reading) return null;
  const mark = (tone: Tone, y: number, down: boolean) => {
    const at = x(tone * LAST_ZONE);
    return <path d={down ? `M${at - 4},${y - 7}h8l-4,7z` : `M${at - 4},${y + 7}h8l-4,-7z`} />;
  };
  return (
    <g className={styles.readingMarks}>
      {both && mark(reading.entering, TOP - RAIL, true)}
      {mark(reading.leaving, BOTTOM + RAIL, false)}
    </g>
  );
}
