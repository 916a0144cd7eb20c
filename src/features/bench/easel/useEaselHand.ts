import { useRef, useState, type MouseEvent, type PointerEvent } from "react";
import type { Plan } from "@/core/plan/plan";
import type { PixelPoint } from "@/core/units";
import { useBench, useBenchState } from "../state/BenchContext";
import type { Touch } from "../tools/drawing/drawer";
import { KEY_POINTER } from "@/features/picture-view/useKeyCursor";
import { useDrawingHand } from "../tools/drawing/useDrawingHand";
import { beginPull, type Puller } from "../tools/pulling";
import { pickColour } from "../tools/pickColour";
import { isDrawing, isExposing, isPicking, picksColour, pulls, type PullTool } from "../tools/tools";
import { togglePin } from "./Pins";
import type { PictureOn } from "@/features/picture-view/usePictureView";
import { useFingers } from "@/features/picture-view/useFingers";
import { useSpaceKey } from "@/features/picture-view/useSpaceKey";
import type { View } from "@/features/picture-view/view";

/** So many CSS pixels from a thing a press still means it. */
const NEAR_PIXELS = 5;
/**
 * A finger may begin a stroke so many CSS pixels beside the print, to cover its edge; one further off moves the print, as it would a sheet
 * on a table.
 */
const BESIDE_PRINT = 24;

/** A tone or hue under the hand, and where it was taken hold of. */
export interface Pull {
  x: number;
  y: number;
  puller: Puller;
}

/** What a hand does on the easel, by the tool in it: drag the print, read, pin, draw, pull. */
export function useEaselHand(on: PictureOn) {
  const bench = useBench();
  const { store } = bench;
  const tool = useBenchState((state) => state.tool);
  const [isSpaceHeld, setSpaceHeld] = useSpaceKey();
  const drag = useRef<{ x: number; y: number; view: View } | undefined>(undefined);
  /** The pointer that uses the tool, and the plan as it was when it began. */
  const using = useRef<{ pointerId: number; plan: Plan } | undefined>(undefined);
  const [pull, setPull] = useState<Pull>();
  const hand = useDrawingHand(store);
  const moves = tool === "move" || isSpaceHeld;
  const isPulling = pulls(tool);
  const paints = tool === "brush" || tool === "repair" || tool === "spot" || isExposing(tool);
  const touchOf = (event: globalThis.PointerEvent): Touch => ({
    ...on.pointAt(event),
    pressure: event.pointerType === "pen" && event.pressure > 0 ? event.pressure : 1,
    near: NEAR_PIXELS / on.geometry.long,
    shift: event.shiftKey,
    alt: event.altKey,
    ctrl: event.ctrlKey,
  });

  /** Takes hold of what lies under the hand: it is read first, and the hand may have let go by then. */
  const takeHold = async (tool: PullTool, { pointerId, clientX, clientY }: globalThis.PointerEvent) => {
    const place = on.placeAt({ clientX, clientY });
    if (!place) return;
    const touched = await bench.engine()?.read(place);
    const isHeld = using.current?.pointerId === pointerId;
    // A pull needs the hand; what is picked is picked by a mere touch too.
    if (!touched || (!isHeld && !isPicking(tool))) return;
    const puller = beginPull(tool, touched, store);
    if ("refused" in puller) store.getState().set({ failure: puller.refused });
    else if (isHeld) setPull({ ...on.pointIn({ clientX, clientY }), puller });
    else puller.finish();
  };
  const readAt = (event: globalThis.PointerEvent) => {
    const place = on.placeAt(event);
    if (!place) return store.getState().set({ reading: undefined });
    void bench
      .engine()
      ?.read(place)
      .then((found) => store.getState().set({ reading: found }));
  };

  const press = (event: globalThis.PointerEvent, target: Element) => {
    using.current = { pointerId: event.pointerId, plan: store.getState().plan };
    const place = on.placeAt(event);
    if (moves && !on.isFraming) drag.current = { ...on.pointIn(event), view: on.view };
    else if (tool === "pin" && place) togglePin(bench, place, on.geometry.picture);
    else if (isDrawing(tool) && target.closest("canvas, [data-testid=easel]") && !hand.isBusy())
      hand.begin(touchOf(event), event.pointerId);
    else if (picksColour(tool) && place) void pickColour(bench, tool, place);
    else if (pulls(tool)) void takeHold(tool, event);
  };
  const move = (event: globalThis.PointerEvent) => {
    const point = on.pointIn(event);
    if (drag.current) {
      const { x, y, view } = drag.current;
      return on.pan(view, point.x - x, point.y - y);
    }
    if (hand.isDown(event.pointerId)) {
      const moves = event.getCoalescedEvents?.() ?? [];
      hand.move((moves.length > 0 ? moves : [event]).map(touchOf));
    }
    if (pull && using.current?.pointerId === event.pointerId) pull.puller.pull(pull.y - point.y, event.altKey);
    readAt(event);
  };
  const release = () => {
    using.current = undefined;
    drag.current = undefined;
    hand.end();
    if (!pull) return;
    setPull(undefined);
    pull.puller.finish();
  };
  /** As if it had not begun. */
  const cancel = () => {
    const { plan } = using.current ?? store.getState();
    using.current = undefined;
    drag.current = undefined;
    hand.cancel();
    setPull(undefined);
    store.getState().adjust(() => plan);
  };
  const held = useRef(on.view);
  const isOnPrint = ({ x, y }: PixelPoint) => {
    const { left, top, width, height } = on.box;
    return x > left - BESIDE_PRINT && y > top - BESIDE_PRINT && x < left + width + BESIDE_PRINT && y < top + height + BESIDE_PRINT;
  };
  const fingers = useFingers(on.pointIn, isDrawing(tool), isOnPrint, {
    press({ event }) {
      press(event, event.target as Element);
      readAt(event);
    },
    move: ({ event }) => move(event),
    release,
    cancel,
    read: ({ event }) => readAt(event),
    hold: () => (held.current = on.view),
    carry: (from, to, ratio) => on.carry(held.current, from, to, ratio),
  });

  return {
    paints,
    pull,
    /** Whether what was begun by a press goes on until the hand lets go. */
    isHolding: () => hand.isBusy() || drag.current !== undefined || isPulling,
    cursor: moves ? "grab" : isPulling ? "ns-resize" : tool === "pin" ? "copy" : paints ? "none" : "crosshair",
    handlers: {
      onPointerDown(event: PointerEvent<HTMLDivElement>) {
        if (fingers.down(event) || event.button > 1) return;
        if (event.pointerId !== KEY_POINTER) event.currentTarget.setPointerCapture(event.pointerId);
        if (event.button === 0) press(event.nativeEvent, event.target as Element);
        else if (!on.isFraming) drag.current = { ...on.pointIn(event), view: on.view };
      },
      onPointerMove: (event: PointerEvent<HTMLDivElement>) => void (fingers.move(event) || move(event.nativeEvent)),
      onPointerUp: (event: PointerEvent<HTMLDivElement>) => void fingers.up(event, false),
      onPointerLeave: ({ pointerType }: PointerEvent) => pointerType !== "touch" && store.getState().set({ reading: undefined }),
      onLostPointerCapture: (event: PointerEvent<HTMLDivElement>) => void (fingers.up(event, true) || release()),
      onPointerCancel: (event: PointerEvent<HTMLDivElement>) => void (fingers.up(event, true) || release()),
      // The long press of a finger reads.
      onContextMenu: (event: MouseEvent<HTMLDivElement>) => event.preventDefault(),
      onBlur: () => setSpaceHeld(false),
    },
  };
}
