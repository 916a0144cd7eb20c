"use client";
import { parsePower } from "@/core/text/written";
import { LeftOutlined, RightOutlined } from "@ant-design/icons";
import { Button, Segmented } from "antd";
import { drawnOf, MOST_FADE, MOST_SPOT, RESTING_FADE, type Spot } from "@/core/spots/spot";
import { Panel, Part } from "../panels/Panel";
import { StepSlider } from "../panels/StepSlider";
import { useBench, useBenchState } from "../state/BenchContext";

import { chooseSpotBy, chosenSpotOf, deleteSpot, drawSpotting, LEAST_SPOT_SIZE, setSpotting, SPOT_SIZE } from "./spotEdits";
import { proposeAgain } from "./touchSpot";
import styles from "../panels/Panel.module.css";

const KINDS: { value: Spot["kind"]; label: string; title: string }[] = [
  { value: "heal", label: "Heal", title: "The texture from elsewhere, in the light of here" },
  { value: "clone", label: "Clone", title: "What lies elsewhere, as it is" },
];

/** Dust and scratches: covered before all else with what lies elsewhere on the picture. */
export function SpotsPanel() {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  const look = useBenchState((state) => state.look);
  const { kind } = useSpotInHand();
  return (
    <Panel title="Spots" place="Dust and scratches, covered before all else; the picture itself stays as it is">
      <Part title="Covering">
        <div className={styles.row}>
          <Segmented<Spot["kind"]>
            size="small"
            aria-label="How it is covered"
            value={kind}
            options={KINDS}
            onChange={(chosen) => {
              setSpotting(store, { kind: chosen });
              store.getState().commit(chosen === "heal" ? "Spot healed" : "Spot cloned");
            }}
          />
          <Button size="small" aria-pressed={tool === "spot"} onClick={() => store.getState().takeUp(tool === "spot" ? "read" : "spot")}>
            Touch spots
          </Button>
        </div>
        <SpotSliders />
        <p className={styles.hint}>
          Touch dust, or draw along a scratch: all within the inner ring is covered, and fades out to the outer. Drag a spot, or the dashed
          ring it takes from. Alt and a touch say where the next one takes from.
        </p>
      </Part>
      <SpotInHand />
      <Part title="Missed dust">
        <div className={styles.row}>
          <Button
            size="small"
            aria-pressed={look.kind === "dust"}
            title="Local contrast, pushed (Shift+S)"
            onClick={() => store.getState().set({ look: { kind: look.kind === "dust" ? "picture" : "dust" } })}
          >
            Show it
          </Button>
        </div>
      </Part>
    </Panel>
  );
}

/** How the spot in hand is covered, or where none is the next one. */
function useSpotInHand(): Pick<Spot, "kind" | "radius" | "softness"> {
  const spotting = useBenchState((state) => state.spotting);
  const chosen = useBenchState(chosenSpotOf);
  return chosen ?? spotting;
}

function SpotSliders() {
  const { store, start } = useBench();
  const { size, fade } = drawnOf(useSpotInHand());
  const long = Math.max(start.picture.width, start.picture.height);
  return (
    <>
      <StepSlider
        label="Size"
        value={Math.log2(2 * size * long)}
        min={Math.log2(2 * LEAST_SPOT_SIZE * long)}
        max={Math.log2(2 * MOST_SPOT * long)}
        step={0.05}
        rest={Math.log2(2 * SPOT_SIZE * long)}
        format={(power) => `${Math.round(2 ** power)} px`}
        parse={parsePower}
        onChange={(power) => drawSpotting(store, () => ({ size: 2 ** power / (2 * long) }))}
        says={(shown) => `Size of a spot ${shown}`}
      />
      <StepSlider
        label="Softness"
        value={Math.min(fade, MOST_FADE)}
        min={0}
        max={MOST_FADE}
        step={0.01}
        rest={RESTING_FADE}
        format={(part) => `${Math.round(100 * part)} %`}
        onChange={(part) => drawSpotting(store, () => ({ fade: part }))}
        says={(shown) => `Softness of a spot ${shown}`}
      />
    </>
  );
}

function SpotInHand() {
  const { store } = useBench();
  const spots = useBenchState((state) => state.plan.spots);
  const chosen = useBenchState(chosenSpotOf);
  const isLooking = useBenchState((state) => state.uncovered.length > 0);
  const at = chosen ? spots.indexOf(chosen) + 1 : 0;
  return (
    <Part title="Spots" state={spots.length === 0 ? "None" : String(spots.length)}>
      {spots.length === 0 ? (
        <p className={styles.hint}>Nothing is covered yet.</p>
      ) : (
        <>
          <div className={styles.row}>
            <Button size="small" aria-label="The spot before" icon={<LeftOutlined />} onClick={() => chooseSpotBy(store, -1)} />
            <span className={styles.hint}>{chosen ? `${at} of ${spots.length}` : `${spots.length} in all`}</span>
            <Button size="small" aria-label="The next spot" icon={<RightOutlined />} onClick={() => chooseSpotBy(store, 1)} />
          </div>
          <div className={styles.row}>
            <Button size="small" disabled={!chosen || isLooking} onClick={() => proposeAgain(store)}>
              Take from elsewhere
            </Button>
            <Button size="small" disabled={!chosen} title="Delete the spot in hand (Delete)" onClick={() => deleteSpot(store)}>
              Delete
            </Button>
          </div>
        </>
      )}
    </Part>
  );
}
