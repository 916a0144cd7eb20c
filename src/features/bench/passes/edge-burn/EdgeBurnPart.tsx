"use client";
import type { Pass } from "@/core/passes/pass";
import { edgeBurnFields } from "@/core/passes/edge-burn/fields";
import type { EdgeBurnMove } from "@/core/passes/edge-burn/move";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { placeList } from "../../easel/placeWords";
import { useBrightAtFrame } from "../../easel/useBrightAtFrame";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { SwitchRow } from "../../panels/SwitchRow";
import styles from "../../panels/Panel.module.css";

/** Its middle is moved in the picture. */
const { x: _x, y: _y, ...SLIDERS } = edgeBurnFields;

/** The borders burned in: how much, from where on, along what, and what draws the eye out of the picture there. */
export function EdgeBurnPart({ pass, move }: { pass: Pass; move: EdgeBurnMove }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const change = (changed: Partial<EdgeBurnMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const isMoved = move.x !== 0 || move.y !== 0;
  return (
    <Part title="Edges" state={move.stops === 0 ? "no light given" : move.stops < 0 ? "burned" : "lightened"}>
      <FieldSliders pass={pass} move={move} fields={SLIDERS} />
      <SwitchRow
        label="Bare paper takes tone"
        checked={move.onPaper}
        words={move.onPaper ? "Bare paper takes tone too" : "Bare paper stays bare"}
        onChange={(onPaper) => {
          change({ onPaper });
          commit(`Bare paper ${onPaper ? "takes tone" : "stays bare"} in ${pass.name}`);
        }}
      />
      <div className={styles.row}>
        <span className={styles.hint}>{isMoved ? "Its middle was moved" : "Drag the cross in the picture to move its middle"}</span>
        {isMoved && (
          <button
            type="button"
            className={styles.small}
            onClick={() => {
              change({ x: 0, y: 0 });
              commit(`Middle of ${pass.name} moved`);
            }}
          >
            Back to the middle
          </button>
        )}
      </div>
      <BrightHint />
    </Part>
  );
}

/** Says where something bright touches the frame, and shows it. */
function BrightHint() {
  const { store } = useBench();
  const shows = useBenchState((state) => state.showsBright);
  const patches = useBrightAtFrame()?.patches;
  if (!patches) return null;
  if (patches.length === 0) return <p className={styles.hint}>Nothing bright touches the frame.</p>;
  const words = `${patches.length === 1 ? "A bright patch touches" : `${patches.length} bright patches touch`} the frame: ${placeList(patches)}.`;
  return (
    <>
      <p className={styles.hint} data-testid="bright-hint">
        {words} The eye may leave the picture there.
      </p>
      <SwitchRow
        label="Show bright patches"
        checked={shows}
        words="Lines round them"
        onChange={(shown) => store.getState().set({ showsBright: shown })}
      />
    </>
  );
}
