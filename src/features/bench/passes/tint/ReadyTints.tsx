"use client";
import { useCallback } from "react";
import type { TintMove, TintPoint } from "@/core/passes/tint/move";
import { READY_TINTS } from "@/core/passes/tint/readyTints";
import type { Plan } from "@/core/plan/plan";
import { useTryOn } from "../../panels/useTryOn";
import { withMove } from "../../state/inPlan";
import { useBench } from "../../state/BenchContext";
import { tintStrip } from "./tintCss";
import styles from "./Tint.module.css";

/** Tints to start from, each as it colours the scale; seen on the print while pointed at. */
export function ReadyTints({ id, name }: { id: string; name: string }) {
  const { store } = useBench();
  const put = useCallback(
    (plan: Plan, points: readonly TintPoint[]) => {
      const { move } = plan.passes.find((pass) => pass.id === id)!;
      return withMove(plan, id, { ...(move as TintMove), points: points.map((point) => ({ ...point })) });
    },
    [id],
  );
  const { handlers, take } = useTryOn(put);
  return (
    <TintStrips
      handlers={handlers}
      onTake={(points, tint) => {
        take(points, `${tint} in ${name}`);
        store.getState().set({ chosenPoint: 0 });
      }}
    />
  );
}

/** The ready tints to choose from. */
export function TintStrips({
  handlers,
  onTake,
}: {
  handlers?(points: readonly TintPoint[]): object;
  onTake(points: readonly TintPoint[], name: string): void;
}) {
  return (
    <div className={styles.strips} data-testid="ready-tints">
      {READY_TINTS.map(({ name, words, points }) => (
        <button
          key={name}
          type="button"
          className={styles.strip}
          title={words}
          {...handlers?.(points)}
          onClick={() => onTake(points, name)}
        >
          <span style={{ background: tintStrip(points) }} />
          {name}
        </button>
      ))}
    </div>
  );
}
