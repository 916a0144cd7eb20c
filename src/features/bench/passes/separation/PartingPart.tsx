"use client";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { PARTING_LIMIT, type SeparationMove, type Tinge } from "@/core/passes/separation/move";
import { unfitParting } from "@/core/passes/separation/separation";
import { parsePercent, SIGNED_PERCENT } from "@/core/text/written";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { PatchSize } from "../PatchSize";
import { PickButton } from "../PickButton";
import styles from "../../panels/Panel.module.css";

/** Why two colours cannot be parted, and what to do. */
const UNFIT = {
  same: "What stays and what moves are one colour: nothing is parted. Pick another colour for one of them.",
  "in line": "The colour that is held lies in line with the two: it cannot stay while they part. Pick another one, or let it go.",
};

/** One colour drawn away from another that stays, a third one held. */
export function PartingPart({ pass, move }: { pass: Pass; move: SeparationMove }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const stays = useBenchState((state) => state.pickedStays);
  const { parting } = move;
  const unfit = parting && unfitParting(parting);
  const letGo = () => {
    adjust((plan) => withMove(plan, pass.id, { ...move, parting: null }));
    store.getState().set({ pickedStays: undefined });
    commit(`Parting let go in ${pass.name}`);
  };
  return (
    <Part title="Part two colours" state={parting ? undefined : "none"}>
      <div className={styles.row}>
        <Picked tinge={parting?.stays ?? stays} />
        <PickButton tool="pick-stays" hint="Touch the colour that is to stay exactly as it is">
          What stays
        </PickButton>
        <Picked tinge={parting?.moves} />
        <PickButton tool="pick-moves" hint="Touch the colour that is to be drawn away from it">
          What moves
        </PickButton>
      </div>
      {parting && (
        <div className={styles.row}>
          <Picked tinge={parting.held ?? undefined} />
          <PickButton tool="pick-held" hint="Touch a third colour that is to stay too">
            Hold a third
          </PickButton>
          {parting.held && (
            <Button
              size="small"
              onClick={() => {
                adjust((plan) => withMove(plan, pass.id, { ...move, parting: { ...parting, held: null } }));
                commit(`Third colour let go in ${pass.name}`);
              }}
            >
              Let it go
            </Button>
          )}
        </div>
      )}
      <div className={styles.row}>
        <span className={styles.hint}>Patch</span>
        <PatchSize />
        <span className={styles.grow} />
        {parting && (
          <Button size="small" onClick={letGo}>
            Clear
          </Button>
        )}
      </div>
      {parting && (
        <PassSlider
          pass={pass}
          label="Apart"
          words="Two colours apart"
          value={parting.amount}
          min={-1}
          max={PARTING_LIMIT}
          step={0.01}
          rest={0}
          format={SIGNED_PERCENT.format}
          parse={parsePercent}
          onChange={(amount) => adjust((plan) => withMove(plan, pass.id, { ...move, parting: { ...parting, amount } }))}
        />
      )}
      {unfit && (
        <p className={styles.problem} role="status">
          {UNFIT[unfit]}
        </p>
      )}
      {!parting && (
        <p className={styles.hint}>
          {stays ? "Now pick what moves." : "Pick a colour that stays, then one that is to be drawn away from it. Light and neutrals stay."}
        </p>
      )}
    </Part>
  );
}

/** A colour that was picked, at a middling lightness. */
function Picked({ tinge }: { tinge: Tinge | undefined }) {
  return (
    <span
      className={styles.swatch}
      style={{ background: tinge ? `oklab(0.65 ${tinge.a} ${tinge.b})` : "transparent" }}
      title={tinge ? undefined : "None yet"}
    />
  );
}
