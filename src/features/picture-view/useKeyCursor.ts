import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from "react";
import type { PixelPoint } from "@/core/units";

/** The pointer that keys move and press. */
export const KEY_POINTER = -1;

/** CSS pixels a key moves the cursor by: with Ctrl finely, with Shift far. */
const STEP = 10;
const FINE_STEP = 1;
const FAR_STEP = 50;
const DIRECTIONS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * A pointer for those who have none: while the easel has the focus, arrows move it, Enter presses and lets go, and whatever tool is in hand
 * takes it for any other. `holds` tells whether what a press began goes on until it is let go. Returns where it is, in CSS pixels of the
 * easel, for as long as keys are used.
 */
export function useKeyCursor(easel: RefObject<HTMLDivElement | null>, holds: () => boolean) {
  const [at, setAt] = useState<PixelPoint>();
  const isDown = useRef(false);
  useEffect(() => {
    const host = easel.current!;
    /** Whether a pointer gave it the focus last. */
    let isPressed = false;
    // The hand that draws lets go by itself.
    const onKey = ({ key }: { key: string }) => {
      if (key === "Escape") isDown.current = false;
      if (key === "Tab" || key === "Enter") isPressed = false;
    };
    const onPointer = ({ isTrusted }: Event) => isTrusted && setAt(undefined);
    const onPress = () => (isPressed = true);
    // Reached without a pointer, it shows where it points.
    const onFocus = () => {
      if (!isPressed) setAt((known) => known ?? { x: host.clientWidth / 2, y: host.clientHeight / 2 });
    };
    // Who comes back from another window with a pointer has not reached it by keys.
    const onBlur = () => setAt(undefined);
    host.addEventListener("pointerdown", onPress, true);
    host.addEventListener("focus", onFocus);
    host.addEventListener("blur", onBlur);
    window.addEventListener("keydown", onKey, true);
    host.addEventListener("pointermove", onPointer);
    return () => {
      window.removeEventListener("keydown", onKey, true);
      host.removeEventListener("pointermove", onPointer);
      host.removeEventListener("pointerdown", onPress, true);
      host.removeEventListener("focus", onFocus);
      host.removeEventListener("blur", onBlur);
    };
  }, [easel]);

  const send = (type: string, { x, y }: PixelPoint, event: KeyboardEvent) => {
    const host = easel.current!;
    const bounds = host.getBoundingClientRect();
    const [clientX, clientY] = [bounds.left + x, bounds.top + y];
    const under = document.elementsFromPoint(clientX, clientY).find((element) => element.tagName === "CANVAS" && host.contains(element));
    const { altKey } = event;
    const of = { bubbles: true, pointerId: KEY_POINTER, pointerType: "mouse", isPrimary: true, clientX, clientY, altKey };
    (under ?? host).dispatchEvent(
      new PointerEvent(type, { ...of, button: type === "pointermove" ? -1 : 0, buttons: Number(isDown.current) }),
    );
  };
  const release = (where: PixelPoint, event: KeyboardEvent) => {
    isDown.current = false;
    send("pointerup", where, event);
    send("lostpointercapture", where, event);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const direction = DIRECTIONS[event.key];
    // Enter is the bench's own until the cursor was moved.
    if (event.target !== event.currentTarget || (!direction && (event.key !== "Enter" || !at)) || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    const { width, height } = event.currentTarget.getBoundingClientRect();
    const from = at ?? { x: width / 2, y: height / 2 };
    if (direction) {
      const step = event.ctrlKey ? FINE_STEP : event.shiftKey ? FAR_STEP : STEP;
      const to = { x: within(from.x + step * direction[0], width), y: within(from.y + step * direction[1], height) };
      setAt(to);
      return send("pointermove", to, event);
    }
    setAt(from);
    // Escape may have taken it back.
    if (isDown.current && holds()) return release(from, event);
    isDown.current = true;
    send("pointermove", from, event);
    send("pointerdown", from, event);
    if (!holds()) release(from, event);
  };
  return { at, onKeyDown };
}

const within = (at: number, size: number) => Math.min(Math.max(at, 0), size - 1);
