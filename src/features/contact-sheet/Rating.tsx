"use client";
import type { KeyboardEvent } from "react";
import styles from "./Rating.module.css";

/** Most marks a picture can have. */
const MOST = 5;
const MARKS = Array.from({ length: MOST }, (_, k) => k + 1);

interface Props {
  /** What is rated. */
  name: string;
  /** 0–5. */
  value: number;
  onChange(value: number): void;
}

/** A picture's marks: a press sets as many, on the last of them none; figures and arrows do the same by keyboard. */
export function Rating({ name, value, onChange }: Props) {
  const rate = (wanted: number) => {
    if (wanted !== value) onChange(wanted);
  };
  const press = (event: KeyboardEvent) => {
    const wanted = wantedBy(event, value);
    if (wanted === undefined) return;
    event.preventDefault();
    rate(wanted);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`Rating of ${name}`}
      aria-valuemin={0}
      aria-valuemax={MOST}
      aria-valuenow={value}
      aria-valuetext={value === 0 ? "not rated" : `${value} of ${MOST}`}
      className={styles.rating}
      onKeyDown={press}
    >
      {MARKS.map((mark) => (
        <span key={mark} className={mark <= value ? styles.given : undefined} onClick={() => rate(mark === value ? 0 : mark)} />
      ))}
    </div>
  );
}

function wantedBy({ key, altKey, ctrlKey, metaKey }: KeyboardEvent, value: number): number | undefined {
  if (altKey || ctrlKey || metaKey) return undefined;
  if (/^[0-5]$/.test(key)) return Number(key);
  if (key === "ArrowRight" || key === "ArrowUp") return Math.min(value + 1, MOST);
  if (key === "ArrowLeft" || key === "ArrowDown") return Math.max(value - 1, 0);
  if (key === "Home") return 0;
  return key === "End" ? MOST : undefined;
}
