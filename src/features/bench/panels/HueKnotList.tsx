"use client";
import { CloseOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { HUE_STOPS_LIMIT, hueName, moveHueKnot, removeHueKnot, type HueKnot } from "@/core/mix/hueCurve";
import { formatStops, parseStops } from "@/core/zones/zone";
import { readTyped } from "@/features/shared/readTyped";
import { TypedValue } from "@/features/shared/TypedValue";
import { hueCss } from "../scale/hueCss";
import { useBench, useBenchState } from "../state/BenchContext";
import { adjustMix, inWhichMix, mixInHand } from "../state/mixInHand";
import styles from "./Panel.module.css";

const STOPS = { min: -HUE_STOPS_LIMIT, max: HUE_STOPS_LIMIT, rest: 0, format: formatStops, parse: parseStops };

/** The knots of the hue line, their stops to be typed. */
export function HueKnotList() {
  const { store } = useBench();
  const knots = useBenchState((state) => mixInHand(state).hueKnots);
  const chosenKnot = useBenchState((state) => state.chosenKnot);
  const { commit, set } = store.getState();
  const which = useBenchState(inWhichMix);
  const change = (hueKnots: HueKnot[], label: string) => {
    adjustMix(store, { hueKnots });
    commit(label);
  };
  const type = (index: number, text: string) => {
    const read = readTyped(text, STOPS);
    if ("wanted" in read) return read.wanted;
    const knot = knots[index]!;
    change(moveHueKnot(knots, index, { ...knot, stops: read.value }), `${hueName(knot.hueDeg)} ${formatStops(read.value)} ${which}`);
  };
  return (
    <ul className={styles.list}>
      {knots.map(({ hueDeg, stops }, index) => (
        <li key={index} className={styles.knot} data-chosen={index === chosenKnot} onPointerDown={() => set({ chosenKnot: index })}>
          <span className={styles.swatch} style={{ background: hueCss(hueDeg) }} />
          {hueName(hueDeg)}
          <TypedValue label={`${hueName(hueDeg)}, stops`} text={formatStops(stops)} onTyped={(text) => type(index, text)} />
          <Button
            size="small"
            type="text"
            icon={<CloseOutlined />}
            aria-label={`Remove the knot at ${hueName(hueDeg)}`}
            onClick={() => {
              change(removeHueKnot(knots, index), `Knot at ${hueName(hueDeg)} removed ${which}`);
              set({ chosenKnot: undefined });
            }}
          />
        </li>
      ))}
    </ul>
  );
}
