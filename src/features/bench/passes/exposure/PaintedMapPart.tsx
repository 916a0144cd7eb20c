"use client";
import type { Pass } from "@/core/passes/pass";
import { LEAST_LIMIT, MOST_LIMIT } from "@/core/passes/exposure/exposure";
import type { ExposureMove } from "@/core/passes/exposure/move";
import { formatStops, parseStops } from "@/core/zones/zone";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Accents } from "./Accents";
import { HandworkHint } from "../../panels/HandworkHint";
import { Part } from "../../panels/Panel";
import { exposureFields } from "@/core/passes/exposure/fields";
import { FieldSlider } from "../../panels/FieldSlider";
import { PassSlider } from "../../panels/PassSlider";
import { SwitchRow } from "../../panels/SwitchRow";
import styles from "../../panels/Panel.module.css";

/** A twelfth of a stop. */
const STOP_STEP = 1 / 12;
/** One step beyond the highest limit there is none. */
const NO_LIMIT = MOST_LIMIT + STOP_STEP;

/** What is painted, as a whole: softened, held, cleared, looked at; and accents for it. */
export function PaintedMapPart({ pass, move }: { pass: Pass; move: ExposureMove }) {
  const { store } = useBench();
  const showsStops = useBenchState((state) => state.showsStops);
  const showsHandwork = useBenchState((state) => state.showsHandwork);
  const { adjust, commit, set } = store.getState();
  const change = (changed: Partial<ExposureMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const isPainted = (burns: boolean) => move.strokes.some((stroke) => !stroke.erase && stroke.burns === burns);
  const clear = (burns: boolean) => {
    const isLeft = isPainted(!burns);
    change({ strokes: isLeft ? move.strokes.filter((stroke) => stroke.erase || stroke.burns !== burns) : [] });
    commit(`${burns ? "Burning" : "Dodging"} cleared in ${pass.name}`);
  };
  return (
    <Part title="All that is painted">
      {move.strokes.length > 0 && (
        <>
          <FieldSlider pass={pass} move={move} name="soften" field={exposureFields.soften} />
          <PassSlider
            pass={pass}
            label="At most"
            words="Painted stops at most"
            value={move.limit ?? NO_LIMIT}
            min={LEAST_LIMIT}
            max={NO_LIMIT}
            step={STOP_STEP}
            rest={NO_LIMIT}
            format={(limit) => (limit > MOST_LIMIT ? "no limit" : formatStops(limit))}
            parse={parseStops}
            onChange={(limit) => change({ limit: limit > MOST_LIMIT + STOP_STEP / 2 ? null : Math.min(limit, MOST_LIMIT) })}
          />
          <SwitchRow
            label="Lines in thirds of a stop"
            checked={showsStops}
            words="Lines in thirds of a stop over the picture"
            onChange={(shown) => set({ showsStops: shown })}
          />
          <SwitchRow
            label="Show handwork"
            checked={showsHandwork}
            words="Marks where the hand shows"
            onChange={(shown) => set({ showsHandwork: shown })}
          />
          {showsHandwork && <HandworkHint pass={pass} />}
          <div className={styles.row}>
            <button type="button" className={styles.small} disabled={!isPainted(false)} onClick={() => clear(false)}>
              Clear dodging
            </button>
            <button type="button" className={styles.small} disabled={!isPainted(true)} onClick={() => clear(true)}>
              Clear burning
            </button>
          </div>
        </>
      )}
      <Accents pass={pass} move={move} />
    </Part>
  );
}
