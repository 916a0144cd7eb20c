"use client";
import { Drawer } from "antd";
import { useEffect, useRef, useState } from "react";
import type { Plan } from "@/core/plan/plan";
import { useBench, useBenchState } from "./BenchContext";
import { GlimpseView } from "./GlimpseView";
import { pathTo } from "./history";
import styles from "./HistorySheet.module.css";

const TIME = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/** The top bar stays in reach: undo and redo are there. */
const BAR_HEIGHT = 44;

/** Every step of the print, newest first; any of them can be gone back to. Ways not taken stay. */
export function HistorySheet({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  const { store } = useBench();
  const history = useBenchState((state) => state.history);
  const path = isOpen ? pathTo(history) : new Set<string>();
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
    >
      <ol className={styles.steps} reversed data-testid="history">
        {history.revisions.toReversed().map(({ id, label, createdAt }) => {
          const isHead = id === history.head;
          return (
            <li key={id}>
              <button
                type="button"
                className={styles.step}
                aria-current={isHead ? "step" : undefined}
                data-aside={!path.has(id)}
                onClick={() => void store.getState().jump(id)}
              >
                <StepGlimpse id={id} />
                <span>{label}</span>
                <time dateTime={createdAt.toISOString()} suppressHydrationWarning>
                  {isHead ? "here" : path.has(id) ? TIME.format(createdAt) : "set aside"}
                </time>
              </button>
            </li>
          );
        })}
      </ol>
    </Drawer>
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
