"use client";
import { useState, type KeyboardEvent, type PointerEvent } from "react";
import { isHold, moveStrand, moveTogether, pushStrand, removeStrand, type Strand } from "@/core/passes/placement/strand";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { BOTTOM, HANDLE_INSET, thread, TOP, type X } from "../../scale/scaleGeometry";
import { keyStep } from "../../scale/keyStep";
import { snapZone } from "../../scale/snapZone";
import styles from "../../scale/Scale.module.css";

/** Words beside a handle: how far from it, and the room the longest need, in CSS pixels. */
const BESIDES = 11;
const WORDS_WIDTH = 96;

interface StrandsProps {
  strands: readonly Strand[];
  x: X;
  zoneAt(event: { clientX: number }): number;
  passId: string;
  passName: string;
}

/** The strands of a placement, to drag, hold and remove by hand and key. */
export function Strands({ strands, x, zoneAt, passId, passName }: StrandsProps) {
  const { store } = useBench();
  const chosen = useBenchState((state) => state.chosenStrands);
  const [held, setHeld] = useState<{ index: number; end: "from" | "to"; offset: number }>();
  /** The strand let go of last lies over the others, so that it can be taken again where they meet. */
  const [uppermost, setUppermost] = useState<number>();

  const change = (changed: Strand[]) => store.getState().adjust((plan) => withMove(plan, passId, { kind: "placement", strands: changed }));
  const labelOf = (index: number) => {
    const move = store.getState().plan.passes.find((pass) => pass.id === passId)?.move;
    const now = move?.kind === "placement" ? move.strands[index] : undefined;
    if (chosen.length > 1) return `${chosen.length} strands moved in ${passName}`;
    return now ? `${formatZone(now.from)} to ${formatZone(now.to)} in ${passName}` : `Strands of ${passName}`;
  };
  const drag = (index: number, end: "from" | "to") => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      const together = event.ctrlKey || event.metaKey ? toggled(chosen, index) : chosen.includes(index) ? inHand(chosen, index) : [index];
      store.getState().set({ chosenStrands: together, look: { kind: "picture" }, before: undefined });
      // What is grabbed beside its middle must not jump to the pointer.
      setHeld({ index, end, offset: strands[index]![end] - zoneAt(event) });
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (!held || held.index !== index || held.end !== end) return;
      const reached = zoneAt(event) + held.offset;
      const zone = event.altKey ? reached : snapZone(reached);
      const strand = strands[index]!;
      if (end === "from") change(moveStrand(strands, index, { ...strand, from: zone }));
      else if (event.shiftKey) change(pushStrand(strands, index, zone));
      else change(moveTogether(strands, new Set([...chosen, index]), zone - strand.to));
    },
    onLostPointerCapture: () => {
      if (!held) return;
      setHeld(undefined);
      setUppermost(index);
      store.getState().commit(labelOf(index));
    },
    onDoubleClick: () => {
      const strand = strands[index]!;
      change(moveStrand(strands, index, { from: strand.from, to: strand.from }));
      store.getState().commit(`Hold ${formatZone(strand.from)} in ${passName}`);
    },
  });
  const onKeyDown = (index: number) => (event: KeyboardEvent) => {
    const strand = strands[index]!;
    const by = keyStep(event, event.altKey ? strand.from : strand.to);
    if (by !== undefined) {
      if (event.altKey) change(moveStrand(strands, index, { ...strand, from: strand.from + by }));
      else change(moveTogether(strands, new Set([...chosen, index]), by));
      store.getState().commitSoon(labelOf(index));
    } else if (event.key === "Delete" || event.key === "Backspace") {
      change(removeStrand(strands, index));
      store.getState().set({ chosenStrands: [] });
      store.getState().commit(`Strand at ${formatZone(strand.from)} removed from ${passName}`);
    } else if (event.key === "Enter") {
      change(moveStrand(strands, index, { from: strand.from, to: strand.from }));
      store.getState().commit(`Hold ${formatZone(strand.from)} in ${passName}`);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <>
      {drawingOrder(strands.length, uppermost).map((index) => {
        const strand = strands[index]!;
        const isChosen = chosen.includes(index);
        const words = isHold(strand) ? `holds ${formatZone(strand.from)}` : `places ${formatZone(strand.from)} at ${formatZone(strand.to)}`;
        return (
          <g
            key={index}
            className={`${styles.strand} ${isChosen ? styles.chosenStrand : ""}`}
            tabIndex={0}
            role="slider"
            aria-label={`Strand ${index + 1}, ${words}`}
            aria-valuemin={0}
            aria-valuemax={LAST_ZONE}
            aria-valuenow={strand.to}
            aria-valuetext={words}
            data-testid={`strand-${index}`}
            onFocus={() => store.getState().chosenStrands.includes(index) || store.getState().set({ chosenStrands: [index] })}
            onKeyDown={onKeyDown(index)}
          >
            <path d={thread(x(strand.from), x(strand.to))} className={styles.strandLine} />
            <path d={thread(x(strand.from), x(strand.to))} className={styles.strandReach} {...drag(index, "to")} />
            <g
              transform={`translate(${x(strand.from)},${TOP + HANDLE_INSET})`}
              className={styles.handle}
              data-end="from"
              {...drag(index, "from")}
            >
              <circle r={11} className={styles.reach} />
              <path d="M0,-7L5.5,0L0,7L-5.5,0Z" className={styles.solid} />
            </g>
            <g
              transform={`translate(${x(strand.to)},${BOTTOM - HANDLE_INSET})`}
              className={styles.handle}
              data-end="to"
              {...drag(index, "to")}
            >
              <circle r={11} className={styles.reach} />
              {isHold(strand) ? (
                <rect x={-5} y={-5} width={10} height={10} className={styles.solid} />
              ) : (
                <circle r={6.5} className={styles.ring} />
              )}
            </g>
            {isChosen && (
              <text className={styles.strandName} {...besides(x(strand.to), x(LAST_ZONE))} y={BOTTOM - HANDLE_INSET - 9}>
                {isHold(strand) ? `${formatZone(strand.from)} held` : `${formatZone(strand.from)} → ${formatZone(strand.to)}`}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

/** Where words stand that belong to a place on the rail: after it, or before it where they would run out. */
function besides(at: number, end: number): { x: number; textAnchor: "start" | "end" } {
  return at + BESIDES + WORDS_WIDTH > end ? { x: at - BESIDES, textAnchor: "end" } : { x: at + BESIDES, textAnchor: "start" };
}

/** Chosen strands with one more, or one fewer; the one in hand stands last. */
function toggled(chosen: readonly number[], index: number): number[] {
  return chosen.includes(index) ? chosen.filter((other) => other !== index) : [...chosen, index];
}

function inHand(chosen: readonly number[], index: number): number[] {
  return [...chosen.filter((other) => other !== index), index];
}

/** Indices from the lowest drawn to the uppermost. */
function drawingOrder(count: number, uppermost: number | undefined): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  return uppermost === undefined || uppermost >= count ? order : [...order.filter((i) => i !== uppermost), uppermost];
}
