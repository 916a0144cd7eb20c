"use client";
import { parsePercent } from "@/core/text/written";
import type { Confined, Pass } from "@/core/passes/pass";
import { Button, Select, Switch } from "antd";
import { memo } from "react";
import { gateBeforeMix, GATE_SOURCES, MOST_GATE_BLUR, MOST_NARROW, hardShoulders, type Gate, type GateSource } from "@/core/gate/gate";
import type { ReadyGate } from "@/core/gate/readyGates";
import { CHANNELS } from "@/core/mix/weights";
import { hueName } from "@/core/mix/hueCurve";
import { passCurve } from "@/core/passes/passKinds";
import { withGate } from "@/core/plan/editRegions";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import { capital } from "@/features/shared/capital";
import { useBench, useBenchState } from "../state/BenchContext";
import { firstGate } from "../scale/gatePulls";
import { BrushSettings } from "./BrushSettings";
import { Part } from "./Panel";
import { sameConfined } from "./sameBesides";
import { ReadyGates } from "./ReadyGates";
import { ZoneSwitches } from "./ZoneSwitches";
import { StepSlider } from "./StepSlider";
import styles from "./Panel.module.css";

const SOURCE_WORDS: Record<GateSource, string> = {
  entering: "The tone entering the pass",
  mixed: "The mixed tone",
  lightness: "The original's lightness",
  red: "The original's red",
  green: "The original's green",
  blue: "The original's blue",
  own: "A mix of its own",
};

interface Props {
  of: Confined;
  /** The same where it is a pass, not a set. */
  pass?: Pass | undefined;
  beforeMix: boolean;
}

/**
 * Which tones a pass or a set acts on: a gate on the scale, hues of the original; of a pass, zones switched off. A gate tells whether an
 * edge will show, by what the pass does.
 */
export const TonesPart = memo(
  Tones,
  (before, now) =>
    sameConfined(before.of, now.of) &&
    before.beforeMix === now.beforeMix &&
    (before.pass === now.pass || (now.of.gate === null && before.pass?.zonesOff === now.pass?.zonesOff)),
);

function Tones({ of, pass, beforeMix }: Props) {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  const { adjust, commit } = store.getState();
  const { gate } = of;
  const setGate = (changed: Gate | null, label: string) => {
    adjust((plan) => withGate(plan, of.id, changed));
    commit(`${label} in ${of.name}`);
  };
  const take = (ready: ReadyGate) =>
    setGate(
      {
        ...ready.gate,
        source: (gate ?? firstGate(!pass)).source,
        weights: gate?.weights ?? ready.gate.weights,
        hue: gate?.hue ?? null,
        repair: gate?.repair ?? [],
      },
      ready.name,
    );
  const pick = (name: "pick-tones" | "pick-hue") => () => store.getState().takeUp(tool === name ? "read" : name);
  const off = pass?.zonesOff.length ?? 0;
  const state = gate
    ? `${formatZone(gate.from)} to ${formatZone(gate.to)}${gate.invert ? ", inverted" : ""}`
    : off
      ? `${off} zones off`
      : "all";
  return (
    <Part folds title="Which tones" state={state}>
      <div className={styles.row}>
        <ReadyGates onPick={take} />
        <Button
          size="small"
          aria-pressed={tool === "pick-tones"}
          type={tool === "pick-tones" ? "primary" : "default"}
          title="Touch a tone in the picture: it becomes the gate's middle; pull up to widen"
          onClick={pick("pick-tones")}
        >
          From the picture
        </Button>
        {gate && (
          <Button size="small" onClick={() => setGate(null, "All tones")}>
            All tones
          </Button>
        )}
      </div>
      {tool === "pick-tones" && <p className={styles.hint}>Touch a tone in the picture and pull up to widen the gate.</p>}
      {gate && <GateControls of={of} pass={pass} beforeMix={beforeMix} gate={gate} />}
      {pass && !beforeMix && <ZoneSwitches pass={pass} />}
      <div className={styles.row}>
        <Button
          size="small"
          aria-pressed={tool === "pick-hue"}
          type={tool === "pick-hue" ? "primary" : "default"}
          title="Touch a colour in the picture: it acts on that hue alone"
          onClick={pick("pick-hue")}
        >
          {gate?.hue ? "Another hue" : "Limit to a hue"}
        </Button>
        {gate?.hue && (
          <span className={styles.hint}>
            {gate.hue.invert ? "All but " : "Only "}
            {hueName(gate.hue.centreDeg)}
          </span>
        )}
      </div>
      {tool === "pick-hue" && <p className={styles.hint}>Touch a colour in the picture and pull up to widen the limit.</p>}
      {gate?.hue && <HueControls of={of} gate={gate} />}
    </Part>
  );
}

function useGate(of: Confined, gate: Gate) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const change = (changed: Partial<Gate>) => adjust((plan) => withGate(plan, of.id, { ...gate, ...changed }));
  return {
    change,
    commit: (label: string) => commit(`${label} in ${of.name}`),
  };
}

function GateControls({ of, pass, beforeMix, gate }: Props & { gate: Gate }) {
  const { change, commit } = useGate(of, gate);
  // What enters the passes of a set differs from one to the next.
  const ofAll = GATE_SOURCES.filter((source) => pass || source !== "entering");
  const sources = ofAll.filter((source) => !beforeMix || gateBeforeMix({ ...gate, source }).source === source);
  const toggle = (key: "invert" | "linear", words: string) => (
    <>
      <Switch
        size="small"
        checked={gate[key]}
        aria-label={words}
        onChange={(on) => {
          change({ [key]: on });
          commit(`${words} ${on ? "on" : "off"}`);
        }}
      />
      <span className={styles.hint}>{words}</span>
    </>
  );
  return (
    <>
      <Select
        size="small"
        aria-label="What the gate reads"
        value={beforeMix ? gateBeforeMix(gate).source : gate.source}
        options={sources.map((value) => ({ value, label: SOURCE_WORDS[value] }))}
        onChange={(source) => {
          change({ source });
          commit(`Gate reads ${SOURCE_WORDS[source].toLowerCase()}`);
        }}
      />
      {gate.source === "own" &&
        CHANNELS.map((channel) => (
          <StepSlider
            key={channel}
            label={capital(channel)}
            value={gate.weights[channel]}
            min={-2}
            max={2}
            step={0.01}
            rest={1 / 3}
            format={(value) => value.toFixed(2)}
            onChange={(value) => change({ weights: { ...gate.weights, [channel]: value } })}
            says={(shown) => `${capital(channel)} of the gate ${shown} in ${of.name}`}
          />
        ))}
      <StepSlider
        label="Blur"
        value={gate.blur}
        min={0}
        max={MOST_GATE_BLUR}
        step={0.002}
        rest={0}
        format={(value) => (value === 0 ? "off" : `${(100 * value).toFixed(1)} %`)}
        parse={parsePercent}
        onChange={(blur) => change({ blur })}
        says={(shown) => `Blur of the gate ${shown} in ${of.name}`}
      />
      <div className={styles.row}>
        {toggle("invert", "Inverted")}
        {toggle("linear", "Straight shoulders")}
      </div>
      <div className={styles.row}>
        <button
          type="button"
          className={styles.chip}
          disabled={gate.narrow === MOST_NARROW}
          onClick={() => {
            change({ narrow: gate.narrow + 1 });
            commit("Gate narrower");
          }}
        >
          Narrower
        </button>
        <button
          type="button"
          className={styles.chip}
          disabled={gate.narrow === 0}
          onClick={() => {
            change({ narrow: gate.narrow - 1 });
            commit("Gate wider");
          }}
        >
          Wider
        </button>
        <span className={styles.hint}>{gate.narrow === 0 ? "As wide as the shoulders" : `Narrowed ${gate.narrow} times`}</span>
      </div>
      {pass && <EdgeHint pass={pass} gate={gate} />}
      <Repair of={of} gate={gate} />
    </>
  );
}

/** A brush on the gate's mask, for what tones alone cannot tell apart. */
function Repair({ of, gate }: { of: Confined; gate: Gate }) {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  const { change, commit } = useGate(of, gate);
  const isOn = tool === "repair";
  return (
    <>
      <div className={styles.row}>
        <button
          type="button"
          className={styles.chip}
          aria-pressed={isOn}
          title="Paint where the gate is to let more through; Alt, or E, for less"
          data-testid="repair"
          onClick={() => store.getState().takeUp(isOn ? "read" : "repair")}
        >
          Repair by brush
        </button>
        {gate.repair.length > 0 && (
          <button
            type="button"
            className={styles.small}
            onClick={() => {
              change({ repair: [] });
              commit("Gate without repairs");
            }}
          >
            Clear repairs
          </button>
        )}
      </div>
      {isOn && <BrushSettings of="drawing" />}
    </>
  );
}

function HueControls({ of, gate }: { of: Confined; gate: Gate }) {
  const { change, commit } = useGate(of, gate);
  const hue = gate.hue!;
  const slider = (key: "widthDeg" | "shoulderDeg", label: string, rest: number) => (
    <StepSlider
      label={label}
      value={hue[key]}
      min={0}
      max={180}
      step={1}
      rest={rest}
      format={(value) => `${Math.round(value)}°`}
      onChange={(value) => change({ hue: { ...hue, [key]: value } })}
      says={(shown) => `${label} of the hue limit ${shown} in ${of.name}`}
    />
  );
  return (
    <>
      {slider("widthDeg", "Width", 25)}
      {slider("shoulderDeg", "Shoulder", 25)}
      <div className={styles.row}>
        <Switch
          size="small"
          checked={hue.invert}
          aria-label="All but this hue"
          onChange={(invert) => {
            change({ hue: { ...hue, invert } });
            commit(`${invert ? "All but" : "Only"} ${hueName(hue.centreDeg)}`);
          }}
        />
        <span className={styles.hint}>All but this hue</span>
        <span className={styles.grow} />
        <button
          type="button"
          className={styles.small}
          onClick={() => {
            change({ hue: null });
            commit("All hues");
          }}
        >
          All hues
        </button>
      </div>
    </>
  );
}

/** A word where a shoulder is so hard that its edge will show in the print: which, how wide it is, and for what change. */
function EdgeHint({ pass, gate }: { pass: Pass; gate: Gate }) {
  const free = passCurve({ ...pass, gate: null });
  let change = 0;
  if (free) for (let zone = 0; zone <= LAST_ZONE; zone += 0.25) change = Math.max(change, Math.abs(free(zone) - zone));
  const hard = hardShoulders(gate, change);
  const words = hard.map((end) => {
    const [side, at, width] = end === "low" ? ["below", gate.from, gate.low] : ["above", gate.to, gate.high];
    return `${side} ${formatZone(at)} (${width < 0.05 ? "no shoulder" : `shoulder ${width.toFixed(1)}`})`;
  });
  // Its place is kept: what lies below stays under the pointer.
  return (
    <p className={`${styles.problem} ${styles.keptPlace}`} role="status">
      {hard.length > 0 && (
        <span data-testid="edge-hint">
          An edge may show {words.join(" and ")}: too hard for a change of {change.toFixed(1)}. Pull it wider on the scale.
        </span>
      )}
    </p>
  );
}
