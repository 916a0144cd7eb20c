"use client";
import { Drawer } from "antd";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Plan } from "@/core/plan/plan";
import { useBench, useBenchState } from "../state/BenchContext";
import { GlimpseView } from "../ribbon/GlimpseView";
import { pathTo } from "../state/history";
import { foldSteps } from "./foldSteps";
import styles from "./HistorySheet.module.css";

const TIME = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/** The top bar stays in reach: undo and redo are there. */
const BAR_HEIGHT = 44;
/** A step before it is measured, the space before the first and after the last, and between them. */
const STEP_HEIGHT = 44;
const MARGIN = 16;
const GAP = 3;
const STEPS_BEFORE = 4;

/** Every step of the print, newest first; any of them can be gone back to. Ways not taken stay. */
export function HistorySheet({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  return (
    <Drawer
      title="History"
      placement="right"
      size={330}
      open={isOpen}
      onClose={onClose}
      mask={false}
      destroyOnHidden
      rootStyle={{ top: BAR_HEIGHT }}
      styles={{ body: { padding: 0 } }}
    >
      <Steps />
    </Drawer>
  );
}

/** Those in sight alone are in the page: a print's history may be thousands of steps long. */
function Steps() {
  const { store } = useBench();
  const history = useBenchState((state) => state.history);
  const { revisions, head } = history;
  const path = useMemo(() => pathTo(history), [history]);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => foldSteps(revisions, head, opened), [revisions, head, opened]);
  const frame = useRef<HTMLDivElement>(null);
  const headIndex = rows.findIndex(({ step }) => step.id === head);
  const open = (id: string, isOpen: boolean) =>
    setOpened((before) => new Set(isOpen ? [...before, id] : [...before].filter((other) => other !== id)));
  // oxlint-disable-next-line react-hooks/incompatible-library -- its functions are called here alone, and nothing is memoized by a compiler
  const virtualizer = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    getItemKey: (index) => rows[index]!.step.id,
    estimateSize: () => STEP_HEIGHT,
    overscan: 3,
    gap: GAP,
    paddingStart: MARGIN,
    paddingEnd: MARGIN,
    // Where the print stands is in sight from the beginning, however far back that is.
    initialOffset: Math.max(headIndex - STEPS_BEFORE, 0) * (STEP_HEIGHT + GAP),
  });
  return (
    <div ref={frame} className={styles.frame}>
      <ol className={styles.steps} style={{ height: virtualizer.getTotalSize() }} data-testid="history">
        {virtualizer.getVirtualItems().map(({ index, key, start }) => {
          const { step, count, isOpen } = rows[index]!;
          const { id, label, createdAt } = step;
          const isHead = id === head;
          return (
            <li
              key={key}
              ref={virtualizer.measureElement}
              data-index={index}
              aria-setsize={rows.length}
              aria-posinset={index + 1}
              style={{ transform: `translateY(${start}px)` }}
            >
              <button
                type="button"
                className={styles.step}
                aria-current={isHead ? "step" : undefined}
                data-aside={!path.has(id)}
                onClick={() => void store.getState().jump(id)}
              >
                <StepGlimpse id={id} />
                <span>
                  {label}
                  {count > 1 && !isOpen && <b className={styles.times}> {count} times</b>}
                </span>
                <time dateTime={createdAt.toISOString()} suppressHydrationWarning>
                  {isHead ? "here" : path.has(id) ? TIME.format(createdAt) : "set aside"}
                </time>
              </button>
              {count > 1 && (
                <button type="button" className={styles.fold} aria-expanded={isOpen} onClick={() => open(id, !isOpen)}>
                  {isOpen ? `Fold these ${count}` : `Show all ${count}`}
                </button>
              )}
            </li>
          );
        })}
      </ol>
    </div>
  );
}

/** The print at a step, small; fetched once it comes into sight. */
function StepGlimpse({ id }: { id: string }) {
  const { store } = useBench();
  const frame = useRef<HTMLSpanElement>(null);
  const [plan, setPlan] = useState<Plan>();
  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => {
      if (!entry!.isIntersecting) return;
      observer.disconnect();
      void store.getState().planAt(id).then(setPlan);
    });
    observer.observe(frame.current!);
    return () => observer.disconnect();
  }, [store, id]);
  return (
    <span ref={frame} className={styles.glimpse}>
      <GlimpseView plan={plan} />
    </span>
  );
}
