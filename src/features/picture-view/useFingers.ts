import { useEffect, useRef, type PointerEvent } from "react";
import type { PixelPoint } from "@/core/units";
import { Fingers, type Finger, type FingerActs } from "./fingers";

/** A press or a move of a finger as the easel's hand takes it. */
export interface EaselFinger extends Finger {
  event: globalThis.PointerEvent;
}

/**
 * Fingers on the easel, told apart from a pen: once a pen has drawn, fingers carry and read only, so that a palm lays no stroke, until one
 * of them takes up a tool from the tray. A finger that `mayDraw` refuses, for where it was put down, carries too.
 */
export function useFingers(
  pointIn: (event: globalThis.PointerEvent) => PixelPoint,
  draws: boolean,
  mayDraw: (at: PixelPoint) => boolean,
  acts: FingerActs<EaselFinger>,
) {
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  const fingers = useRef<Fingers<EaselFinger>>(undefined);
  const isPenInHand = useRef(false);
  useEffect(() => {
    const now = () => latest.current;
    fingers.current = new Fingers<EaselFinger>({
      press: (finger) => now().press(finger),
      move: (finger) => now().move(finger),
      release: (finger) => now().release(finger),
      cancel: () => now().cancel(),
      read: (finger) => now().read(finger),
      hold: () => now().hold(),
      carry: (from, to, ratio) => now().carry(from, to, ratio),
    });
    const onTray = ({ pointerType, target }: globalThis.PointerEvent) => {
      if (pointerType === "touch" && (target as Element).closest("[role=toolbar]")) isPenInHand.current = false;
    };
    window.addEventListener("pointerdown", onTray, true);
    return () => window.removeEventListener("pointerdown", onTray, true);
  }, []);
  const fingerOf = ({ nativeEvent: event }: PointerEvent): EaselFinger => ({
    pointerId: event.pointerId,
    ...pointIn(event),
    event,
  });
  return {
    /** Each tells whether the event was a finger's. */
    down(event: PointerEvent<HTMLElement>): boolean {
      if (event.pointerType === "pen") isPenInHand.current = true;
      if (event.pointerType !== "touch") return false;
      event.currentTarget.setPointerCapture(event.pointerId);
      const finger = fingerOf(event);
      fingers.current?.down(finger, !draws || (!isPenInHand.current && mayDraw(finger)));
      return true;
    },
    move(event: PointerEvent<HTMLElement>): boolean {
      if (event.pointerType !== "touch") return false;
      fingers.current?.move(fingerOf(event));
      return true;
    },
    up(event: PointerEvent<HTMLElement>, isCancelled: boolean): boolean {
      if (event.pointerType !== "touch") return false;
      fingers.current?.up(fingerOf(event), isCancelled);
      return true;
    },
  };
}
