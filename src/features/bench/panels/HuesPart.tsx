"use client";
import { Button, Switch } from "antd";
import { NAMED_HUES } from "@/core/mix/hueCurve";
import type { MixLook } from "@/core/mix/mixLook";
import { capital } from "@/features/shared/capital";
import { Menu } from "@/features/shared/Menu";
import { hueCss } from "../scale/hueCss";
import { setKnot } from "../scale/hueEdits";
import { useBench, useBenchState } from "../state/BenchContext";
import { adjustMix, mixInHand, mixPlaceOf } from "../state/mixInHand";
import { HueKnotList } from "./HueKnotList";
import { Part } from "./Panel";
import styles from "./Panel.module.css";

/** Single hues made lighter or darker in the mix in hand. */
export function HuesPart() {
  const { store } = useBench();
  const mix = useBenchState(mixInHand);
  const isInPass = useBenchState(mixPlaceOf) !== undefined;
  const { commit, set } = store.getState();
  const change = (changed: Partial<MixLook>) => adjustMix(store, changed);
  const moved = mix.hueKnots.filter((knot) => knot.stops !== 0).length;
  return (
    <Part title="Hues" state={mix.huesOn ? `${moved} moved, neutrals stay` : "off"}>
      <div className={styles.row}>
        <Switch
          size="small"
          checked={mix.huesOn}
          aria-label="Hue response on"
          onChange={(huesOn) => {
            change({ huesOn });
            commit(huesOn ? "Hue response on" : "Hue response off");
          }}
        />
        <span className={styles.hint}>Hue response</span>
        <span className={styles.grow} />
        <Menu
          columns={2}
          items={NAMED_HUES.map(({ name, hueDeg }) => ({
            key: name,
            label: capital(name),
            icon: <span className={styles.swatch} style={{ background: hueCss(hueDeg) }} />,
          }))}
          onPick={(picked) => setKnot(store, NAMED_HUES.find(({ name }) => name === picked)!.hueDeg)}
        >
          <Button size="small">Add a hue</Button>
        </Menu>
        {mix.hueKnots.length > 0 && (
          <Button
            size="small"
            onClick={() => {
              change({ hueKnots: [] });
              set({ chosenKnot: undefined });
              commit("Hue line cleared");
            }}
          >
            Clear
          </Button>
        )}
      </div>
      {mix.hueKnots.length === 0 && (
        <p className={styles.hint}>
          Choose Pull hue, touch a colour in the picture, and pull up for lighter or down for darker. Or{" "}
          {isInPass ? "" : "click on the hue line, or "}add a hue by its name.
        </p>
      )}
      <HueKnotList />
    </Part>
  );
}
