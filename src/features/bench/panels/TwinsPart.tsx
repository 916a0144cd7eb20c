"use client";
import { useEffect, useState } from "react";
import { hueName, type HueKnot } from "@/core/mix/hueCurve";
import { canPart, hueOfArea, partedKnots, type ColourArea, type Twins } from "@/core/mix/twins";
import { formatStops, formatZone, LAST_ZONE, parseStops, toThird } from "@/core/zones/zone";
import { capital } from "@/features/shared/capital";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState, usePanelPlan } from "../state/BenchContext";

import { Part } from "./Panel";
import styles from "./Panel.module.css";
import type { Stops } from "@/core/units";

/** How long the hand must rest before twins are looked for anew. */
const REST_MS = 300;
/** How far a pair is parted at the most, in stops. */
const MOST_APART = 2;

/** Colours that differ and come to one tone in the mix; each pair lit when pointed at, and a slider that parts just these two. */
export function TwinsPart() {
  const { store } = useBench();
  const [twins, refresh] = useTwins();
  const light = (pair: Twins | undefined) => store.getState().set({ litTwins: pair });
  useEffect(() => () => store.getState().set({ litTwins: undefined }), [store]);
  const lit = useBenchState((state) => state.litTwins);
  useEffect(() => {
    // A pair that is parted is gone from under the hand.
    if (lit && twins && !twins.some((pair) => keyOf(pair) === keyOf(lit))) store.getState().set({ litTwins: undefined });
  }, [store, twins, lit]);
  const state = twins && (twins.length === 0 ? "none" : `${twins.length} ${twins.length > 1 ? "pairs" : "pair"}`);
  return (
    <Part folds title="Twins" state={state}>
      {twins?.length === 0 && <p className={styles.hint}>All colours that differ differ in tone too.</p>}
      <ul className={styles.list} data-testid="twins">
        {twins?.map((pair) => (
          <li
            key={keyOf(pair)}
            className={styles.pair}
            onPointerEnter={() => light(pair)}
            onPointerLeave={() => light(undefined)}
            onFocus={() => light(pair)}
            onBlur={() => light(undefined)}
          >
            <Pair pair={pair} onSettled={refresh} />
          </li>
        ))}
      </ul>
    </Part>
  );
}

function Pair({ pair, onSettled }: { pair: Twins; onSettled(): void }) {
  const { store } = useBench();
  const { one, other } = pair;
  const names = [nameOf(one), nameOf(other)] as const;
  const hueKnots = useBenchState((state) => state.plan.mix.hueKnots);
  /** The hue line before and after it was parted here: any other one is a line to begin from. */
  const [parted, setParted] = useState<{ base: HueKnot[]; knots: HueKnot[]; stops: Stops }>();
  const own = parted?.knots === hueKnots ? parted : { base: hueKnots, knots: hueKnots, stops: 0 };
  const change = (stops: Stops) => {
    const knots = stops === 0 ? own.base : partedKnots(own.base, pair, stops);
    if (!knots) return store.getState().set({ failure: "There is no room for more knots on the hue line. Remove one first." });
    setParted({ base: own.base, knots, stops });
    store.getState().adjust((plan) => ({ ...plan, mix: { ...plan.mix, huesOn: true, hueKnots: knots } }));
  };
  const tone = formatZone(toThird(((one.tone + other.tone) / 2) * LAST_ZONE));
  const label = names[0] === names[1] ? "Part" : capital(names[0]);
  return (
    <>
      <div className={styles.row}>
        <span className={styles.swatch} style={{ background: cssOf(one) }} />
        <span className={styles.swatch} style={{ background: cssOf(other) }} />
        <span>
          {capital(names[0])} and {names[1]}
        </span>
        <span className={styles.grow} />
        <span className={styles.hint}>
          {tone}, {Math.max(1, Math.round(100 * (one.share + other.share)))} %
        </span>
      </div>
      {canPart(pair) ? (
        <ValueSlider
          label={label}
          fullLabel={`${label}, ${names[0]} over ${names[1]} at ${tone}`}
          value={own.stops}
          min={-MOST_APART}
          max={MOST_APART}
          step={0.05}
          rest={0}
          format={formatStops}
          parse={parseStops}
          onChange={change}
          onSettled={(value, isNow) => {
            const words = `${capital(names[0])} ${formatStops(value)} over ${names[1]}`;
            if (isNow) {
              store.getState().commit(words);
              onSettled();
            } else store.getState().commitSoon(words);
          }}
        />
      ) : (
        <p className={styles.hint}>Of one hue: part them before the mix, with a Separation pass.</p>
      )}
    </>
  );
}

/** The twins of the mix; looked for anew when it changed and no hand is on a pair, or when asked. */
function useTwins(): [Twins[] | undefined, () => void] {
  const { engine, store } = useBench();
  const isReady = useBenchState((state) => state.isReady);
  const mix = usePanelPlan((plan) => plan.mix);
  const lit = useBenchState((state) => state.litTwins);
  const [twins, setTwins] = useState<Twins[]>();
  const [asked, setAsked] = useState(0);
  const isHeld = lit !== undefined;
  useEffect(() => {
    if (!isReady || (isHeld && asked === 0)) return;
    let isWanted = true;
    const timer = setTimeout(() => {
      void engine()
        ?.twins(store.getState().plan)
        .then((found) => isWanted && found && setTwins(found));
      setAsked(0);
    }, REST_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [engine, store, mix, isReady, isHeld, asked]);
  return [twins, () => setAsked((n) => n + 1)];
}

const keyOf = ({ one, other }: Twins) =>
  [one, other].map(({ a, b, lightness }) => `${a.toFixed(3)} ${b.toFixed(3)} ${lightness.toFixed(3)}`).join(" ");

function nameOf(area: ColourArea): string {
  const hue = hueOfArea(area);
  return hue === undefined ? "grey" : hueName(hue);
}

const cssOf = ({ lightness, a, b }: ColourArea) => `oklab(${lightness} ${a} ${b})`;
