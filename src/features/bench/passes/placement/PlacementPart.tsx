"use client";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { CloseOutlined } from "@ant-design/icons";
import { memo, useState } from "react";
import { placementCurve } from "@/core/passes/placement/placementCurve";
import { addStrand, isHold, moveStrand, removeStrand, RESTING_STRANDS, type Strand } from "@/core/passes/placement/strand";
import type { PlacementMove } from "@/core/passes/placement/move";
import { formatZone, parseZone } from "@/core/zones/zone";
import { useSteady } from "@/features/shared/useSteady";
import { TypedValue } from "@/features/shared/TypedValue";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
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
  // What the rows do is the same over renders, so that a drag draws only the row that changes.
  const choose = useSteady((at: number) => set({ chosenStrands: [at] }));
  const type = useSteady((at: number, end: "from" | "to", text: string) => {
    const zone = parseZone(text);
    if (zone === undefined) return setRefused(`“${text}” is no place on the scale. Write VII½, 7.5 or 7 1/2.`);
    const moved = moveStrand(strands, at, { ...strands[at]!, [end]: zone });
    const reached = moved[at]![end];
    setRefused(Math.abs(reached - zone) > 1e-9 ? `It stopped at ${formatZone(reached)}, at the strand beside it.` : undefined);
    changeStrands(moved, `${formatZone(moved[at]!.from)} to ${formatZone(moved[at]!.to)} in ${pass.name}`);
  });
  const hold = useSteady((at: number) => {
    const { from } = strands[at]!;
    changeStrands(moveStrand(strands, at, { from, to: from }), `Hold ${formatZone(from)} in ${pass.name}`);
  });
  const remove = useSteady((at: number) => {
    set({ chosenStrands: [] });
    changeStrands(removeStrand(strands, at), `Strand at ${formatZone(strands[at]!.from)} removed from ${pass.name}`);
  });
  const add = useSteady(() => {
    const curve = placementCurve(strands);
    const from = widestGap(strands);
    const joined = addStrand(strands, { from, to: curve(from) });
    if (!joined) return;
    changeStrands(joined, `A strand at ${formatZone(from)} in ${pass.name}`);
    set({ chosenStrands: [joined.findIndex((strand) => strand.from === from)] });
  });
  const clear = useSteady(() => changeStrands(RESTING_STRANDS, `${pass.name} cleared`));
  const holds = strands.filter(isHold).length;
  return (
    <Part title="Placement" state={`${strands.length} strands, ${holds} hold`}>
      <Buttons isChoosing={isChoosing} onAdd={add} onChoose={setChoosing} onClear={clear} />
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
            onChosen={choose}
            onTyped={type}
            onHeld={hold}
            onRemoved={remove}
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

interface ButtonsProps {
  isChoosing: boolean;
  onAdd(): void;
  onChoose(isChoosing: boolean): void;
  onClear(): void;
}

const Buttons = memo(function Buttons({ isChoosing, onAdd, onChoose, onClear }: ButtonsProps) {
  return (
    <div className={styles.row}>
      <Button size="small" onClick={onAdd}>
        Add a strand
      </Button>
      <Button size="small" aria-expanded={isChoosing} onClick={() => onChoose(!isChoosing)}>
        Ready placements
      </Button>
      <Button size="small" onClick={onClear}>
        Clear
      </Button>
    </div>
  );
});

interface StrandRowProps extends Strand {
  index: number;
  isChosen: boolean;
  canGo: boolean;
  onChosen(index: number): void;
  onTyped(index: number, end: "from" | "to", text: string): void;
  onHeld(index: number): void;
  onRemoved(index: number): void;
}

const StrandRow = memo(function StrandRow({ index, from, to, isChosen, canGo, onChosen, onTyped, onHeld, onRemoved }: StrandRowProps) {
  return (
    <li className={styles.strand} data-chosen={isChosen} onPointerDown={() => onChosen(index)}>
      <TypedValue label={`Strand ${index + 1} takes zone`} text={formatZone(from)} onTyped={(text) => onTyped(index, "from", text)} />
      <span aria-hidden>→</span>
      <TypedValue label={`Strand ${index + 1} places it at`} text={formatZone(to)} onTyped={(text) => onTyped(index, "to", text)} />
      <button
        type="button"
        className={styles.small}
        title="The tone stays where it falls, whatever is done beside it"
        disabled={from === to}
        onClick={() => onHeld(index)}
      >
        {from === to ? "Holds" : "Hold"}
      </button>
      <button
        type="button"
        className={styles.small}
        disabled={!canGo}
        aria-label={`Remove the strand at ${formatZone(from)}`}
        onClick={() => onRemoved(index)}
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
