"use client";
import { Button, Switch } from "antd";
import { CloseOutlined } from "@ant-design/icons";
import { memo, useEffect, useMemo, useRef, useState } from "react";
import { addStrand, isHold, moveStrand, removeStrand, RESTING_STRANDS, type Strand } from "@/core/placement/strand";
import { placementAtStrength } from "@/core/placement/placementCurve";
import type { Pass } from "@/core/plan/plan";
import { formatZone, parseZone } from "@/core/zones/zone";
import { TypedValue, ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../BenchContext";
import { withPass } from "../benchStore";
import { Panel, Part } from "./Panel";
import styles from "./Panel.module.css";

/** A placement pass: its strands as figures, its strength, on and off. */
export function PlacementPanel({ pass, index }: { pass: Pass; index: number }) {
  const { store } = useBench();
  const chosenStrand = useBenchState((state) => state.chosenStrand);
  const [refused, setRefused] = useState<string>();
  const { adjust, commit, commitSoon, set } = store.getState();
  const { strands } = pass.move;
  const change = (changed: Partial<Pass>) => adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, ...changed })));
  const changeStrands = (changed: readonly Strand[], label: string) => {
    change({ move: { ...pass.move, strands: changed.map((strand) => ({ ...strand })) } });
    commit(label);
  };
  // What the rows do, kept the same over renders, so that a drag draws only the row that changes.
  const latest = useRef({ pass, changeStrands });
  useEffect(() => {
    latest.current = { pass, changeStrands };
  });
  const acts = useMemo<StrandActs>(
    () => ({
      choose: (at) => set({ chosenStrand: at }),
      type: (at, end, text) => {
        const { pass: now, changeStrands: apply } = latest.current;
        const zone = parseZone(text);
        if (zone === undefined) return setRefused(`“${text}” is no place on the scale. Write VII½, 7.5 or 7 1/2.`);
        const moved = moveStrand(now.move.strands, at, { ...now.move.strands[at]!, [end]: zone });
        const reached = moved[at]![end];
        setRefused(Math.abs(reached - zone) > 1e-9 ? `It stopped at ${formatZone(reached)}, at the strand beside it.` : undefined);
        apply(moved, `${formatZone(moved[at]!.from)} to ${formatZone(moved[at]!.to)} in ${now.name}`);
      },
      hold: (at) => {
        const { pass: now, changeStrands: apply } = latest.current;
        const { from } = now.move.strands[at]!;
        apply(moveStrand(now.move.strands, at, { from, to: from }), `Hold ${formatZone(from)} in ${now.name}`);
      },
      remove: (at) => {
        const { pass: now, changeStrands: apply } = latest.current;
        set({ chosenStrand: undefined });
        apply(removeStrand(now.move.strands, at), `Strand at ${formatZone(now.move.strands[at]!.from)} removed from ${now.name}`);
      },
    }),
    [set],
  );
  const onAdd = () => {
    const curve = placementAtStrength(strands, 1);
    const from = widestGap(strands);
    const joined = addStrand(strands, { from, to: curve(from) });
    if (!joined) return;
    changeStrands(joined, `A strand at ${formatZone(from)} in ${pass.name}`);
    set({ chosenStrand: joined.findIndex((strand) => strand.from === from) });
  };
  const strengthLabel = () => {
    const now = store.getState().plan.passes.find(({ id }) => id === pass.id);
    return `${pass.name} at ${Math.round(100 * (now?.strength ?? 1))} %`;
  };
  const holds = strands.filter(isHold).length;
  return (
    <Panel
      title={
        <NameField
          name={pass.name}
          onNamed={(name) => {
            change({ name });
            commit(`Pass named ${name}`);
          }}
        />
      }
      place={`Pass ${index + 1} · placement on the whole picture, after ${index === 0 ? "the mix" : `pass ${index}`}`}
    >
      <Part title="Placement" state={`${strands.length} strands, ${holds} hold`}>
        <ul className={styles.list}>
          {strands.map((strand, at) => (
            <StrandRow
              key={at}
              index={at}
              from={strand.from}
              to={strand.to}
              isChosen={at === chosenStrand}
              canGo={strands.length > 2}
              acts={acts}
            />
          ))}
        </ul>
        {refused && (
          <p className={styles.problem} role="alert">
            {refused}
          </p>
        )}
        <div className={styles.row}>
          <Button size="small" onClick={onAdd}>
            Add a strand
          </Button>
          <Button size="small" onClick={() => changeStrands(RESTING_STRANDS, `${pass.name} cleared`)}>
            Clear
          </Button>
        </div>
        {strands.length === 2 && holds === 2 && (
          <p className={styles.hint}>
            Click on the upper rail of the scale where a tone falls, then drag the ring on the lower rail to where it should lie.
          </p>
        )}
      </Part>
      <Part title="How it meets the print">
        <ValueSlider
          label="Strength"
          value={pass.strength}
          min={0}
          max={2}
          step={0.01}
          rest={1}
          format={(value) => `${Math.round(100 * value)} %`}
          parse={(text) => {
            const percent = Number(text.replace("%", "").replace(",", ".").trim());
            return text.trim() === "" || Number.isNaN(percent) ? undefined : percent / 100;
          }}
          onChange={(strength) => change({ strength })}
          onCommit={() => commit(strengthLabel())}
          onCommitSoon={() => commitSoon(strengthLabel())}
        />
        <div className={styles.row}>
          <Switch
            size="small"
            checked={pass.on}
            aria-label="Pass on"
            onChange={(on) => {
              change({ on });
              commit(`${pass.name} ${on ? "on" : "off"}`);
            }}
          />
          <span className={styles.hint}>{pass.on ? "The pass is on" : "The pass is off"} (O)</span>
        </div>
      </Part>
    </Panel>
  );
}

interface StrandActs {
  choose(index: number): void;
  type(index: number, end: "from" | "to", text: string): void;
  hold(index: number): void;
  remove(index: number): void;
}

interface StrandRowProps extends Strand {
  index: number;
  isChosen: boolean;
  canGo: boolean;
  acts: StrandActs;
}

const StrandRow = memo(function StrandRow({ index, from, to, isChosen, canGo, acts }: StrandRowProps) {
  return (
    <li className={styles.strand} data-chosen={isChosen} onPointerDown={() => acts.choose(index)}>
      <TypedValue label={`Strand ${index + 1} takes zone`} text={formatZone(from)} onTyped={(text) => acts.type(index, "from", text)} />
      <span aria-hidden>→</span>
      <TypedValue label={`Strand ${index + 1} places it at`} text={formatZone(to)} onTyped={(text) => acts.type(index, "to", text)} />
      <button type="button" className={styles.small} disabled={from === to} onClick={() => acts.hold(index)}>
        {from === to ? "Held" : "Hold"}
      </button>
      <button
        type="button"
        className={styles.small}
        disabled={!canGo}
        aria-label={`Remove the strand at ${formatZone(from)}`}
        onClick={() => acts.remove(index)}
      >
        <CloseOutlined />
      </button>
    </li>
  );
});

function NameField({ name, onNamed }: { name: string; onNamed(name: string): void }) {
  const [draft, setDraft] = useState<string>();
  const finish = () => {
    const named = draft?.trim().slice(0, 80);
    if (named && named !== name) onNamed(named);
    setDraft(undefined);
  };
  return (
    <input
      className={styles.name}
      aria-label="Name of the pass"
      value={draft ?? name}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") setDraft(undefined);
      }}
    />
  );
}

/** The middle of the widest stretch without a strand, in zones. */
function widestGap(strands: readonly Strand[]): number {
  let widest = { width: 0, middle: 5 };
  for (let i = 1; i < strands.length; i++) {
    const width = strands[i]!.from - strands[i - 1]!.from;
    if (width > widest.width) widest = { width, middle: Math.round(2 * (strands[i - 1]!.from + width / 2)) / 2 };
  }
  return widest.middle;
}
