"use client";
import type { Pass } from "@/core/passes/pass";
import { useRef } from "react";
import { contrastFields } from "@/core/passes/contrast/fields";
import { formatGrade, LEAST_RANGE, NORMAL_GRADE } from "@/core/passes/contrast/contrastCurve";
import type { ContrastMove } from "@/core/passes/contrast/move";
import { LAST_ZONE } from "@/core/zones/zone";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { FieldSlider } from "../../panels/FieldSlider";
import { SwitchRow } from "../../panels/SwitchRow";
import styles from "../../panels/Panel.module.css";
import type { Zone } from "@/core/units";

const GRADES = [-1, 0, 1, 2, 3, 4, 5] as const;

/** Grade around a zone, and the points of true black and true white with what goes there. */
export function ContrastPart({ pass, move }: { pass: Pass; move: ContrastMove }) {
  const { store } = useBench();
  const entering = useBenchState((state) => state.measured?.entering);
  const { adjust, commit, set } = store.getState();
  const change = (changed: Partial<ContrastMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const screens = useBenchState((state) => state.screens);
  /** What goes to the ends is drawn as screens for as long as their points are under the hand. */
  const shown = useRef(false);
  const showScreens = (isHeld: boolean) => {
    if (isHeld && !store.getState().screens) {
      shown.current = true;
      set({ screens: true });
    } else if (!isHeld && shown.current) {
      shown.current = false;
      set({ screens: false });
    }
  };
  const black = entering ? share(entering, 0, move.black) : 0;
  const white = entering ? share(entering, move.white, LAST_ZONE) : 0;
  return (
    <>
      <Part title="Grade" state={move.grade === NORMAL_GRADE ? "2, as it is" : move.grade > NORMAL_GRADE ? "harder" : "softer"}>
        <div className={styles.row}>
          {GRADES.map((grade) => (
            <button
              key={grade}
              type="button"
              className={styles.chip}
              aria-pressed={move.grade === grade}
              onClick={() => {
                change({ grade });
                commit(`Grade ${formatGrade(grade)} in ${pass.name}`);
              }}
            >
              {formatGrade(grade)}
            </button>
          ))}
        </div>
        <FieldSlider pass={pass} move={move} name="grade" field={contrastFields.grade} />
        <FieldSlider pass={pass} move={move} name="around" field={contrastFields.around} />
      </Part>
      <Part title="True black, true white">
        <div onPointerDown={() => showScreens(true)} onLostPointerCapture={() => showScreens(false)}>
          <FieldSlider
            pass={pass}
            move={move}
            name="black"
            field={contrastFields.black}
            bounded={(to) => Math.min(to, move.white - LEAST_RANGE)}
          />
          <p className={styles.hint}>{formatShare(black)} of the print goes to full black</p>
          <FieldSlider
            pass={pass}
            move={move}
            name="white"
            field={contrastFields.white}
            bounded={(from) => Math.max(from, move.black + LEAST_RANGE)}
          />
          <p className={styles.hint}>{formatShare(white)} of the print goes to bare paper</p>
        </div>
        <SwitchRow
          label="Show where"
          checked={screens}
          words="Show where: lines on full black, dots on bare paper (V)"
          onChange={(on) => set({ screens: on })}
        />
      </Part>
    </>
  );
}

/** The share of a histogram from one zone to another, whole bins. */
function share(counts: Uint32Array, from: number, to: number): number {
  const bin = (zone: Zone) => Math.round((zone / LAST_ZONE) * HISTOGRAM_BINS);
  const sum = (part: Uint32Array) => part.reduce((total, count) => total + count, 0);
  return sum(counts.subarray(bin(from), bin(to))) / Math.max(sum(counts), 1);
}

function formatShare(part: number): string {
  const percent = 100 * part;
  return percent === 0 ? "Nothing" : percent < 0.1 ? "Less than 0.1 %" : `${percent.toFixed(1)} %`;
}
