"use client";
import { Button } from "antd";
import { CloseOutlined } from "@ant-design/icons";
import { memo, useEffect, useMemo, useRef, useState } from "react";
import { placementCurve } from "@/core/passes/placement/placementCurve";
import { addStrand, isHold, moveStrand, removeStrand, RESTING_STRANDS, type Strand } from "@/core/passes/placement/strand";
import type { PlacementMove } from "@/core/passes/placement/move";
import type { Pass } from "@/core/plan/plan";
import { formatZone, parseZone } from "@/core/zones/zone";
import { TypedValue } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/benchStore";
import { Part } from "../../panels/Panel";
import { ReadyPlacements } from "./ReadyPlacements";
import styles from "../../panels/Panel.module.css";

/** A placement's strands as figures. */
export function PlacementPart({ pass, move: { strands } }: { pass: Pass; move: PlacementMove }) {
  const { store } = useBench();
  const chosenStrands = useBenchState((state) => state.chosenStrands);
  const [refused, setRefused] = useState<string>();
  const [isChoosing, setChoosing] = useState(false);
  const { adjust, commit, set } = store.getState();
  const changeStrands = (changed: readonly Strand[], label: string) => {
    adjust((plan) => withMove(plan, pass.id, { kind: "placement", strands: changed.map((strand) => ({ ...strand })) }));
    commit(label);
  };
  // What the rows do, kept the same over renders, so that a drag draws only the row that changes.
  const latest = useRef({ name: pass.name, strands, changeStrands });
  useEffect(() => {
    latest.current = { name: pass.name, strands, changeStrands };
  });
  const acts = useMemo<StrandActs>(
    () => ({
      choose: (at) => set({ chosenStrands: [at] }),
      type: (at, end, text) => {
        const { name, strands: now, changeStrands: apply } = latest.current;
        const zone = parseZone(text);
        if (zone === undefined) return setRefused(`“${text}” is no place on the scale. Write VII½, 7.5 or 7 1/2.`);
        const moved = moveStrand(now, at, { ...now[at]!, [end]: zone });
        const reached = moved[at]![end];
        setRefused(Math.abs(reached - zone) > 1e-9 ? `It stopped at ${formatZone(reached)}, at the strand beside it.` : undefined);
        apply(moved, `${formatZone(moved[at]!.from)} to ${formatZone(moved[at]!.to)} in ${name}`);
      },
      hold: (at) => {
        const { name, strands: now, changeStrands: apply } = latest.current;
        const { from } = now[at]!;
        apply(moveStrand(now, at, { from, to: from }), `Hold ${formatZone(from)} in ${name}`);
      },
      remove: (at) => {
        const { name, strands: now, changeStrands: apply } = latest.current;
        set({ chosenStrands: [] });
        apply(removeStrand(now, at), `Strand at ${formatZone(now[at]!.from)} removed from ${name}`);
      },
    }),
    [set],
  );
  const onAdd = () => {
    const curve = placementCurve(strands);
    const from = widestGap(strands);
    const joined = addStrand(strands, { from, to: curve(from) });
    if (!joined) return;
    changeStrands(joined, `A strand at ${formatZone(from)} in ${pass.name}`);
    set({ chosenStrands: [joined.findIndex((strand) => strand.from === from)] });
  };
  const holds = strands.filter(isHold).length;
  return (
    <Part title="Placement" state={`${strands.length} strands, ${holds} hold`}>
      <div className={styles.row}>
        <Button size="small" onClick={onAdd}>
          Add a strand
        </Button>
        <Button size="small" aria-expanded={isChoosing} onClick={() => setChoosing(!isChoosing)}>
          Ready placements
        </Button>
        <Button size="small" onClick={() => changeStrands(RESTING_STRANDS, `${pass.name} cleared`)}>
          Clear
        </Button>
      </div>
      {/* While placements are tried the list grows and shrinks: what is pointed at stands above it. */}
      {isChoosing && <ReadyPlacements pass={pass} onTaken={() => setChoosing(false)} />}
      <ul className={styles.list}>
        {strands.map((strand, at) => (
          <StrandRow
            key={at}
            index={at}
            from={strand.from}
            to={strand.to}
            isChosen={chosenStrands.includes(at)}
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
      {chosenStrands.length > 1 && <p className={styles.hint}>{chosenStrands.length} strands in hand: dragging one moves all of them.</p>}
      {strands.length === 2 && holds === 2 && (
        <p className={styles.hint}>
          Click on the upper rail where a tone falls, then drag its ring to where it should lie. Or choose Pull tone, touch the picture and
          pull up or down. Or drag a zone along the lower rail.
        </p>
      )}
    </Part>
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
      <button
        type="button"
        className={styles.small}
        title="The tone stays where it falls, whatever is done beside it"
        disabled={from === to}
        onClick={() => acts.hold(index)}
      >
        {from === to ? "Holds" : "Hold"}
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

/** The middle of the widest stretch without a strand, in zones. */
function widestGap(strands: readonly Strand[]): number {
  let widest = { width: 0, middle: 5 };
  for (let i = 1; i < strands.length; i++) {
    const width = strands[i]!.from - strands[i - 1]!.from;
    if (width > widest.width) widest = { width, middle: Math.round(2 * (strands[i - 1]!.from + width / 2)) / 2 };
  }
  return widest.middle;
}
