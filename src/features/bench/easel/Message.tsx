"use client";
import { CloseOutlined } from "@ant-design/icons";
import { useEffect, useState } from "react";
import { addPass } from "../ribbon/addPassEdit";
import { useBench, useBenchState } from "../state/BenchContext";
import type { BenchStore } from "../state/benchStore";
import { closePolygon, POLYGON_IS_FULL } from "../tools/drawing/drawShapes";
import { NEEDS_EXPOSURE, NEEDS_FRAME, NEEDS_SPOTS } from "../tools/tools";
import styles from "./Message.module.css";

/** How long it stands, unless it is pointed at. */
const STANDS_MS = 9000;

export const BROUGHT_IN_ELSEWHERE =
  "Pictures are brought in on the contact sheet, masks under Where, plans from the print's menu. Nothing was changed here.";

/** What does as some messages advise. */
const REMEDIES: Record<string, { label: string; act(store: BenchStore): void }> = {
  [NEEDS_EXPOSURE]: { label: "Add an exposure pass", act: (store) => addPass(store, "exposure") },
  [NEEDS_SPOTS]: { label: "Go to the spots", act: (store) => store.getState().chooseStep({ stage: "spots" }) },
  [NEEDS_FRAME]: { label: "Go to the frame", act: (store) => store.getState().chooseStep({ stage: "frame" }) },
  [BROUGHT_IN_ELSEWHERE]: { label: "To the contact sheet", act: () => location.assign("/") },
  [POLYGON_IS_FULL]: { label: "Close it", act: (store) => closePolygon(store) },
};

/**
 * What the bench has to say, one thing at a time, on the easel, where it covers neither ribbon nor looks. What went wrong goes before what
 * is worth knowing.
 */
export function Message() {
  const { store } = useBench();
  const failure = useBenchState((state) => state.failure);
  const notice = useBenchState((state) => state.notice);
  // Without a picture there is nothing else to see, and nothing it could be in the way of.
  const stays = useBenchState((state) => state.failure !== undefined && !state.isReady);
  const [isHeld, setHeld] = useState(false);
  const words = failure ?? notice;
  const dismiss = () => store.getState().set(failure ? { failure: undefined } : { notice: undefined });
  useEffect(() => {
    if (!words || isHeld || stays) return;
    const timer = setTimeout(() => store.getState().set(failure ? { failure: undefined } : { notice: undefined }), STANDS_MS);
    return () => clearTimeout(timer);
  }, [words, failure, isHeld, stays, store]);
  const remedy = words ? REMEDIES[words] : undefined;
  const hold = (held: boolean) => () => setHeld(held);
  return (
    <div
      className={styles.place}
      aria-live="polite"
      onPointerEnter={hold(true)}
      onPointerLeave={hold(false)}
      onFocus={hold(true)}
      onBlur={hold(false)}
    >
      {words && (
        <div className={`${styles.message} ${failure ? styles.failure : ""}`} data-testid="message">
          <span>{words}</span>
          {remedy && (
            <button
              type="button"
              onClick={() => {
                dismiss();
                remedy.act(store);
              }}
            >
              {remedy.label}
            </button>
          )}
          <button type="button" aria-label="Put away" onClick={dismiss}>
            <CloseOutlined />
          </button>
        </div>
      )}
    </div>
  );
}
