"use client";
import { useEffect, useRef, useState } from "react";
import styles from "./ValueSlider.module.css";

/** How long it is said what was wanted. */
const SAID_MS = 6000;

/**
 * A figure that can be typed over; what means nothing is put back, and what was wanted is said, where `onTyped` says it. Enter takes it,
 * Escape puts the old one back; both give the keys back to the page.
 */
export function TypedValue({ label, text, onTyped }: { label: string; text: string; onTyped(text: string): string | void }) {
  const [draft, setDraft] = useState<string>();
  const isLeft = useRef(false);
  const [wanted, setWanted] = useState<string>();
  useEffect(() => {
    if (!wanted) return;
    const timer = setTimeout(() => setWanted(undefined), SAID_MS);
    return () => clearTimeout(timer);
  }, [wanted]);
  const finish = () => {
    if (!isLeft.current && draft !== undefined && draft !== text) setWanted(onTyped(draft) ?? undefined);
    isLeft.current = false;
    setDraft(undefined);
  };
  return (
    <>
      <input
        className={styles.value}
        aria-invalid={wanted !== undefined}
        aria-label={`${label}, value`}
        value={draft ?? text}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          event.stopPropagation();
          isLeft.current = event.key === "Escape";
          if (event.key === "Enter" || isLeft.current) event.currentTarget.blur();
        }}
      />
      {wanted && (
        <p className={styles.wanted} role="alert">
          {wanted}
        </p>
      )}
    </>
  );
}
