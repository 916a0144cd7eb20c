"use client";
import { parsePercent } from "@/core/text/written";
import type { PassOf } from "@/core/passes/pass";
import { Button } from "antd";
import { colourReturnFields } from "@/core/passes/colour-return/fields";
import { regionOf, withRegion } from "@/core/plan/editRegions";
import { MOST_SOFTEN } from "@/core/region/region";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { PassSlider } from "../../panels/PassSlider";
import { useBench, useBenchState } from "../../state/BenchContext";
import styles from "../../panels/Panel.module.css";

/** A hue that covers less of a picture is none. */
const LEAST_SHARE = 1e-6;

/** How much of the picture's own colour comes back, and how softly it ends. */
export function ColourReturnPart({ pass }: { pass: PassOf<"colour-return"> }) {
  const { store } = useBench();
  const region = useBenchState(({ plan }) => regionOf(plan, pass));
  const isGrey = useBenchState(({ hueShares }) => hueShares?.every((share) => share < LEAST_SHARE) ?? false);
  const isSweeping = useBenchState((state) => state.tool === "likeness");
  return (
    <Part title="Colour return">
      <FieldSliders pass={pass} move={pass.move} fields={colourReturnFields} />
      {region ? (
        <PassSlider
          pass={pass}
          label="Soft edge"
          value={region.soften}
          min={0}
          max={MOST_SOFTEN}
          step={0.0005}
          rest={0}
          format={(softness) => `${(100 * softness).toFixed(2)} %`}
          parse={parsePercent}
          onChange={(soften) => store.getState().adjust((plan) => withRegion(plan, region.id, (now) => ({ ...now, soften })))}
        />
      ) : (
        <div className={styles.row}>
          <Button
            size="small"
            aria-pressed={isSweeping}
            type={isSweeping ? "primary" : "default"}
            title="Sweep over what is to be in colour; Alt takes away. Mend it by brush."
            onClick={() => store.getState().takeUp(isSweeping ? "read" : "likeness")}
          >
            Choose the things in colour
          </Button>
        </div>
      )}
      {isGrey && (
        <p className={styles.problem} role="status">
          This picture has no colour to bring back. A tint lays one on it.
        </p>
      )}
      <p className={styles.hint}>
        The colour is that of the picture as it is mixed, passes before the mix included. Tones stay; where they are darker than the picture
        was, the colour follows as if less light fell on it.
      </p>
    </Part>
  );
}
