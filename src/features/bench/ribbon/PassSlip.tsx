"use client";
import { formatPercent } from "@/core/text/written";
import type { Pass } from "@/core/passes/pass";
import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { memo, useEffect, useRef } from "react";
import { passInSet } from "@/core/plan/editPasses";
import type { PassSet } from "@/core/plan/plan";
import type { Glimpse } from "@/engine/messages/messages";
import { useBench } from "../state/BenchContext";

import { GlimpseCanvas } from "./GlimpseView";
import { gateWords } from "../scale/gateWords";
import { passWords } from "../passes/passFaces";
import styles from "./PlanRibbon.module.css";

interface Props {
  pass: Pass;
  /** Its number, or its letter before the mix. */
  number: string;
  isOn: boolean;
  /** What it changes, small: lighter and darker than mid grey. */
  change: Glimpse | undefined;
  set: PassSet | undefined;
  /** The names of the regions it and its set act in. */
  region: string | undefined;
  setRegion: string | undefined;
  /** Whether it is the set's first or last pass. */
  isFirst: boolean;
  isLast: boolean;
  isSetOn: boolean;
}

/** One pass on the ribbon: what it does, how strongly, what it changes; under the bracket of its set. */
export const PassSlip = memo(function PassSlip({ pass, number, isOn, change, set, region, setRegion, isFirst, isLast, isSetOn }: Props) {
  const { store } = useBench();
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id: pass.id });
  const element = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (isOn) showIn(element.current!.closest("nav")!, element.current!);
  }, [isOn]);
  const acts = passInSet({ sets: set ? [set] : [] }, pass);
  const classes = [styles.slip, styles.pass, !acts.on && styles.off, isOn && styles.on, isDragging && styles.dragged];
  const bracket = [styles.bracket, isFirst && styles.opens, isLast && styles.closes, isSetOn && styles.bracketOn];
  return (
    <div ref={setNodeRef} className={styles.place} style={{ transform: CSS.Translate.toString(transform), transition }}>
      {set && <span className={bracket.filter(Boolean).join(" ")} />}
      {set && isFirst && (
        <button
          type="button"
          className={styles.setName}
          aria-current={isSetOn ? "step" : undefined}
          onClick={() => store.getState().chooseStep({ stage: "set", id: set.id })}
          data-testid="set"
        >
          {set.name} {set.on ? [formatPercent(set.strength), setRegion, gateWords(set)].filter(Boolean).join(", ") : "off"}
        </button>
      )}
      <button
        type="button"
        ref={element}
        {...attributes}
        {...listeners}
        role="button"
        className={classes.filter(Boolean).join(" ")}
        aria-current={isOn ? "step" : undefined}
        data-testid={`pass-${number}`}
        onClick={() => store.getState().chooseStep({ stage: "pass", id: pass.id })}
      >
        <span className={styles.name}>{pass.name}</span>
        <i>{number}</i>
        <span className={styles.words}>{acts.on ? passWords(pass) : "Switched off"}</span>
        <span className={styles.words}>
          {acts.on && [formatPercent(acts.strength), region, gateWords(pass)].filter(Boolean).join(", ")}
        </span>
        <span className={styles.change}>
          <GlimpseCanvas glimpse={change} />
        </span>
        <span className={styles.bar}>
          <span style={{ width: `${Math.min(50 * acts.strength, 100)}%` }} />
        </span>
      </button>
    </div>
  );
});

/** Room kept at either side of the slip in hand, in CSS pixels: at the right the ribbon's end lies over it. */
const BEFORE = 40;
const AFTER = 236;

/** Scrolls the ribbon so far that a slip is seen. Its own way of doing so would have Tab begin there. */
function showIn(ribbon: HTMLElement, slip: HTMLElement): void {
  const [all, one] = [ribbon.getBoundingClientRect(), slip.getBoundingClientRect()];
  const over = one.right - (all.right - AFTER);
  const under = all.left + BEFORE - one.left;
  if (under > 0) ribbon.scrollLeft -= under;
  else if (over > 0) ribbon.scrollLeft += over;
}
