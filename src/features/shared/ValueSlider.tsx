"use client";
import { readNumber } from "@/core/text/written";
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from "react";
import { readTyped } from "./readTyped";
import { TypedValue } from "./TypedValue";
import { useFocusedWheel } from "./useFocusedWheel";
import styles from "./ValueSlider.module.css";

interface Props {
  label: string;
  /** The same with what tells it from others like it, for those who do not see what it stands beside; begins with the label. */
  fullLabel?: string | undefined;
  value: number;
  min: number;
  max: number;
  step: number;
  /** What a double click brings back. */
  rest: number;
  format(value: number): string;
  /** Reads a typed value; undefined where it means nothing. */
  parse?: ((text: string) => number | undefined) | undefined;
  /** Every change, also while the hand is still moving. */
  onChange(value: number): void;
  /**
   * What it came to: now, where a hand has let go; else by key or wheel, whose end cannot be seen, so that it is to be taken when the hand
   * rests.
   */
  onSettled?: ((value: number, isNow: boolean) => void) | undefined;
}

const SHIFT_FACTOR = 10;
/** How near the grip a press takes hold of it, in CSS pixels. */
const GRIP_REACH = 8;

/** A slider by drag, wheel while it has the focus, arrow keys (Shift ten times), typed value, double click to reset. */
export function ValueSlider({
  label,
  fullLabel = label,
  value,
  min,
  max,
  step,
  rest,
  format,
  parse = readNumber,
  onChange: onValue,
  onSettled,
}: Props) {
  // What it came to is told before it was drawn.
  const latest = useRef(value);
  useEffect(() => void (latest.current = value), [value]);
  const onChange = (to: number) => {
    latest.current = to;
    onValue(to);
  };
  const settle = (isNow: boolean) => onSettled?.(latest.current, isNow);
  const track = useRef<HTMLDivElement>(null);
  const bounded = (v: number) => Math.min(Math.max(Math.round(v / step) * step, min), max);
  const part = (value - min) / (max - min);
  const restPart = (Math.min(Math.max(rest, min), max) - min) / (max - min);

  const press = useRef<{ x: number; offset: number; hasMoved: boolean } | undefined>(undefined);
  const moveTo = (clientX: number) => {
    const { left, width } = track.current!.getBoundingClientRect();
    onChange(bounded(min + ((clientX - left) / width) * (max - min)));
  };
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { left, width } = event.currentTarget.getBoundingClientRect();
    const fromGrip = left + part * width - event.clientX;
    const isOnGrip = Math.abs(fromGrip) <= GRIP_REACH;
    press.current = { x: event.clientX, offset: isOnGrip ? fromGrip : 0, hasMoved: false };
    if (!isOnGrip) moveTo(event.clientX);
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const pressed = press.current;
    if (!pressed || event.clientX === pressed.x) return;
    pressed.hasMoved = true;
    moveTo(event.clientX + pressed.offset);
  };
  const onRelease = () => {
    // A mere click may be the first half of a double click: its step is made when the hand rests.
    settle(press.current?.hasMoved === true);
    press.current = undefined;
  };
  const nudge = (by: number) => {
    onChange(bounded(latest.current + by));
    settle(false);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = step * (event.shiftKey ? SHIFT_FACTOR : 1);
    const moves: Record<string, () => void> = {
      ArrowRight: () => nudge(by),
      ArrowUp: () => nudge(by),
      ArrowLeft: () => nudge(-by),
      ArrowDown: () => nudge(-by),
      Home: () => nudge(min - latest.current),
      End: () => nudge(max - latest.current),
    };
    if (!moves[event.key]) return;
    event.preventDefault();
    event.stopPropagation();
    moves[event.key]!();
  };

  useFocusedWheel(track, (isUp, isFast) => nudge((isUp ? step : -step) * (isFast ? SHIFT_FACTOR : 1)));

  return (
    <div className={styles.row}>
      <span className={styles.label}>{label}</span>
      <div
        ref={track}
        className={styles.track}
        role="slider"
        tabIndex={0}
        aria-label={fullLabel}
        aria-valuemin={min}
        aria-valuemax={max}
        aria-valuenow={value}
        aria-valuetext={format(value)}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onLostPointerCapture={onRelease}
        onKeyDown={onKeyDown}
        onDoubleClick={() => {
          onChange(rest);
          settle(true);
        }}
      >
        <span className={styles.line} />
        <span className={styles.rest} style={{ left: `${100 * restPart}%` }} />
        <span
          className={styles.grown}
          style={{ left: `${100 * Math.min(part, restPart)}%`, width: `${100 * Math.abs(part - restPart)}%` }}
        />
        <span className={styles.grip} style={{ left: `${100 * part}%` }} />
      </div>
      <TypedValue
        label={fullLabel}
        text={format(value)}
        onTyped={(text) => {
          const read = readTyped(text, { min, max, rest, format, parse });
          if ("wanted" in read) return read.wanted;
          onChange(read.value);
          return settle(true);
        }}
      />
    </div>
  );
}
