import { KEY_POINTER } from "@/features/picture-view/useKeyCursor";
import { useEffect, useMemo, useRef } from "react";
import type { Plan } from "@/core/plan/plan";
import type { BenchStore } from "../../state/benchStore";
import { drawsOneShape, isDrawing } from "../tools";
import { beginDrawing } from "./beginDrawing";
import type { Drawer, Touch } from "./drawer";

const ITS_KEYS = ["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "Enter"];
const MODIFIERS = ["Shift", "Alt", "Control", "Meta", "CapsLock"];
/** After these the hand goes on in another stroke: with the other sign, erasing, larger or smaller. */
const GOES_ON_AFTER = ["d", "b", "e", "[", "]"];

/** What is being drawn, and the plan without it. */
interface Drawn {
  drawer: Drawer;
  before: Plan;
  pointerId: number;
  keepsTool: boolean;
}

export interface DrawingHand {
  /** Takes back what is being drawn, as if it had not begun. */
  cancel(): void;
  /** Whether a thing is being drawn. */
  isBusy(): boolean;
  begin(touch: Touch, pointerId: number): void;
  /** Whether a pointer draws, or goes on drawing with its next move. */
  isDown(pointerId: number): boolean;
  move(touches: readonly Touch[]): void;
  end(): void;
}

/**
 * The hand that draws on the picture. Any key, and any other press, ends what it draws before it acts, so that a stroke that was seen
 * is a step of the history before anything can take its pass away. A tool that draws one shape is put down with it, unless Shift is held:
 * the next press moves what was drawn.
 */
export function useDrawingHand(store: BenchStore): DrawingHand {
  const drawer = useRef<Drawn | undefined>(undefined);
  /** The pointer that is still down after a key ended its stroke. */
  const goesOn = useRef<number | undefined>(undefined);
  const hand = useMemo(() => {
    const end = () => {
      const ended = drawer.current;
      drawer.current = undefined;
      goesOn.current = undefined;
      store.getState().letGo();
      if (!ended) return;
      ended.drawer.finish();
      const { tool, chosenShape, putDown } = store.getState();
      if (drawsOneShape(tool) && chosenShape && !ended.keepsTool) putDown();
    };
    /** As if it had not begun. */
    const cancel = () => {
      const begun = drawer.current;
      drawer.current = undefined;
      goesOn.current = undefined;
      const { adjust, letGo, set } = store.getState();
      if (begun) adjust(() => begun.before);
      letGo();
      set({ lasso: [], drawnSpot: undefined });
    };
    return {
      cancel,
      isBusy: () => drawer.current !== undefined,
      begin(touch: Touch, pointerId: number) {
        const { tool, plan: before } = store.getState();
        const begun = isDrawing(tool) ? beginDrawing(tool, touch, store) : undefined;
        drawer.current = begun && { drawer: begun, before, pointerId, keepsTool: touch.shift };
        if (begun) store.getState().press();
      },
      isDown: (pointerId: number) => drawer.current?.pointerId === pointerId || goesOn.current === pointerId,
      move(touches: readonly Touch[]) {
        if (goesOn.current !== undefined) {
          this.begin(touches[0]!, goesOn.current);
          goesOn.current = undefined;
        }
        if (!drawer.current) return;
        drawer.current.keepsTool = touches.at(-1)!.shift;
        drawer.current.drawer.move(touches);
      },
      end,
    };
  }, [store]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { key } = event;
      const drawn = drawer.current;
      if (!drawn || MODIFIERS.includes(key) || (drawn.pointerId === KEY_POINTER && ITS_KEYS.includes(key))) return;
      if (key === "Escape") return (event.stopImmediatePropagation(), hand.cancel());
      hand.end();
      if (GOES_ON_AFTER.includes(key.toLowerCase())) goesOn.current = drawn.pointerId;
    };
    const onPress = ({ pointerId, pointerType, target }: PointerEvent) => {
      // A palm, or a second finger: the easel tells what becomes of the first.
      if (pointerType === "touch" && (target as Element).closest("[data-testid=easel]")) return;
      if (drawer.current && drawer.current.pointerId !== pointerId) hand.end();
    };
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("pointerdown", onPress, true);
    return () => {
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("pointerdown", onPress, true);
    };
  }, [hand]);
  return hand;
}
