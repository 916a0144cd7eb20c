"use client";
import { useEffect, useRef, useState } from "react";
import type { Glimpse } from "@/engine/messages/messages";
import { GlimpseCanvas } from "../ribbon/GlimpseView";
import { useBench, useBenchState } from "../state/BenchContext";
import styles from "./Panel.module.css";

const PAUSE_MS = 80;

/** The print beside the colour in view, for a pass before the mix; it follows the hand. */
export function PrintBeside() {
  const glimpse = useFollowed();
  return (
    <figure className={styles.beside} data-testid="print-beside">
      <GlimpseCanvas glimpse={glimpse} />
      <figcaption>The print; Z held shows it in full</figcaption>
    </figure>
  );
}

/** The print small: one question at a time, the newest plan next. */
function useFollowed(): Glimpse | undefined {
  const { engine } = useBench();
  const plan = useBenchState((state) => state.plan);
  const [glimpse, setGlimpse] = useState<Glimpse>();
  const wanted = useRef<typeof plan>(undefined);
  const isAsking = useRef(false);
  useEffect(() => {
    wanted.current = plan;
    const ask = async () => {
      const next = wanted.current;
      if (isAsking.current || !next) return;
      isAsking.current = true;
      wanted.current = undefined;
      const made = await engine()?.glimpse(next, "beside");
      if (made?.[0]) setGlimpse(made[0]);
      // The picture goes before it.
      setTimeout(() => {
        isAsking.current = false;
        void ask();
      }, PAUSE_MS);
    };
    void ask();
  }, [engine, plan]);
  return glimpse;
}
