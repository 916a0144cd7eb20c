import { useRef, useState, type PointerEvent } from "react";
import { useBench, useBenchState } from "../state/BenchContext";
import type { Touch } from "../tools/drawing/drawer";
import { useDrawingHand } from "../tools/drawing/useDrawingHand";
import { beginPull, type Puller } from "../tools/pulling";
import { isDrawing, isExposing, isPicking } from "../tools/tools";
import { togglePin } from "./Pins";
import type { EaselView } from "./useEaselView";
import { useSpaceKey } from "./useSpaceKey";
import type { View } from "./view";

/** A tone or hue under the hand, and where it was taken hold of. */
export interface Pull {
  x: number;
  y: number;
  puller: Puller;
}

/** What a hand does on the easel, by the tool in it: drag the print, read, pin, draw, pull. */
export function useEaselHand(on: EaselView) {
  const bench = useBench();
  const { store } = bench;
  const tool = useBenchState((state) => state.tool);
  const [isSpaceHeld, setSpaceHeld] = useSpaceKey();
  const drag = useRef<{ x: number; y: number; view: View } | undefined>(undefined);
  const [pull, setPull] = useState<Pull>();
  const hand = useDrawingHand(store);
  const moves = tool === "move" || isSpaceHeld;
  const isPulling = tool === "pull-hue" || tool === "pull-tone" || isPicking(tool);
  const paints = tool === "brush" || tool === "repair" || isExposing(tool);
  const touchOf = (event: globalThis.PointerEvent): Touch => ({
    ...on.pointAt(event),
    pressure: event.pointerType === "pen" && event.pressure > 0 ? event.pressure : 1,
    shift: event.shiftKey,
    alt: event.altKey,
    ctrl: event.ctrlKey,
  });

  /** Takes hold of what lies under the hand: it is read first, and the hand may have let go by then. */
  const takeHold = async ({ currentTarget, pointerId, clientX, clientY }: PointerEvent<HTMLDivElement>) => {
    const place = on.placeAt({ clientX, clientY });
    if (!place) return;
    currentTarget.setPointerCapture(pointerId);
    const touched = await bench.engine()?.read(place);
    const isHeld = currentTarget.hasPointerCapture(pointerId);
    // A pull needs the hand; what is picked is picked by a mere touch too.
    if (!touched || (!isHeld && !isPicking(tool))) return;
    const puller = beginPull(tool, touched, store);
    if ("refused" in puller) store.getState().set({ failure: puller.refused });
    else if (isHeld) setPull({ ...on.pointIn({ clientX, clientY }), puller });
    else puller.finish();
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    const isFirst = event.button === 0;
    if (!on.isFraming && (event.button === 1 || (isFirst && moves))) {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { ...on.pointIn(event), view: on.view };
      return;
    }
    if (!isFirst) return;
    const place = on.placeAt(event);
    if (tool === "pin" && place) togglePin(bench, place, on.geometry.picture);
    else if (isDrawing(tool) && (event.target as Element).closest("canvas, [data-testid=easel]") && !hand.isBusy()) {
      event.currentTarget.setPointerCapture(event.pointerId);
      hand.begin(touchOf(event.nativeEvent), event.pointerId);
    } else if (isPulling) void takeHold(event);
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const point = on.pointIn(event);
    if (drag.current) {
      const { x, y, view } = drag.current;
      return on.pan(view, point.x - x, point.y - y);
    }
    if (hand.isDown(event.pointerId)) {
      const moves = event.nativeEvent.getCoalescedEvents?.() ?? [];
      hand.move((moves.length > 0 ? moves : [event.nativeEvent]).map(touchOf));
    }
    if (pull && event.currentTarget.hasPointerCapture(event.pointerId)) pull.puller.pull(pull.y - point.y, event.altKey);
    const place = on.placeAt(event);
    if (!place) return store.getState().set({ reading: undefined });
    void bench
      .engine()
      ?.read(place)
      .then((found) => store.getState().set({ reading: found }));
  };
  const onPointerEnd = () => {
    drag.current = undefined;
    hand.end();
    if (!pull) return;
    setPull(undefined);
    pull.puller.finish();
  };
  return {
    paints,
    pull,
    cursor: moves ? "grab" : isPulling ? "ns-resize" : tool === "pin" ? "copy" : paints ? "none" : "crosshair",
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerLeave: () => store.getState().set({ reading: undefined }),
      onLostPointerCapture: onPointerEnd,
      onPointerCancel: onPointerEnd,
      onBlur: () => setSpaceHeld(false),
    },
  };
}
