"use client";
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type PointerEvent } from "react";
import type { Frame, LevelArea } from "@/engine/messages";
import type { Size } from "@/core/spatial/areaReduce";
import { useBench, useBenchState } from "../state/BenchContext";
import { handOf, takeUp } from "../state/benchStore";
import { isTyping } from "../tools/isTyping";
import { isDrawing, isExposing, type Tool } from "../tools/tools";
import { beforePlan, planUpTo, planWithoutMask } from "../state/beforePlan";
import { BrushCursor } from "./BrushCursor";
import { useDrawingHand } from "../tools/drawing/useDrawingHand";
import { beginPull, type Puller } from "../tools/pulling";
import { Pins, togglePin } from "./Pins";
import { PassMarks } from "./PassMarks";
import { PrintingMap } from "./PrintingMap";
import { Readings } from "./Readings";
import { RegionOverlay } from "../regions/RegionOverlay";
import { sizeBrush } from "../tools/brushSize";
import { Readout } from "./Readout";
import { detailArea, fitScale, fitView, panned, pictureBox, wheelScale, zoomAt, type Box, type View } from "./view";
import styles from "./Easel.module.css";

/** White of the print around the picture, and easel around that, in CSS pixels. */
const BORDER = 14;
const EASEL_MARGIN = 16;
const TRAY_WIDTH = 108;

const TOOLS: { tool: Tool; label: string; key: string; hint: string }[] = [
  { tool: "read", label: "Read", key: "R", hint: "Point at the picture to read its tones" },
  { tool: "pull-hue", label: "Pull hue", key: "H", hint: "Touch a colour and pull up for lighter, down for darker" },
  { tool: "pull-tone", label: "Pull tone", key: "L", hint: "In a placement: touch a tone and pull up for lighter, down for darker" },
  { tool: "pin", label: "Pin", key: "I", hint: "Touch a place to keep its reading in view; touch a pin to take it away" },
  { tool: "move", label: "Move", key: "M", hint: "Drag the picture; the space bar does so with any tool" },
];

interface Pull {
  x: number;
  y: number;
  puller: Puller;
}

/** The picture as a print on a mid-grey easel: zoom, drag, read, pull. */
export function Easel() {
  const bench = useBench();
  const { start, store } = bench;
  const picture = start.prepared;
  const easel = useRef<HTMLDivElement>(null);
  const size = useSizeOf(easel);
  const room: Box = {
    left: TRAY_WIDTH + EASEL_MARGIN,
    top: EASEL_MARGIN + BORDER,
    width: Math.max(size.width - TRAY_WIDTH - 2 * EASEL_MARGIN - 2 * BORDER, 50),
    height: Math.max(size.height - 2 * EASEL_MARGIN - 2 * BORDER, 50),
  };
  room.left += BORDER;
  const fit = Math.min(fitScale(picture, room), 1);
  const [zoomed, setZoomed] = useState<View>();
  const view = zoomed ?? { ...fitView(picture, room), scale: fit };
  const box = pictureBox(picture, room, view);
  const pixelRatio = typeof devicePixelRatio === "number" ? devicePixelRatio : 1;
  const detail = size.width > 0 ? detailArea(picture, size, box, view, pixelRatio) : undefined;

  const preview = useRef<HTMLCanvasElement>(null);
  const close = useRef<HTMLCanvasElement>(null);
  const [closeArea, setCloseArea] = useState<LevelArea>();

  const draw = useCallback((frame: Frame) => {
    const canvas = frame.area === "preview" ? preview.current : close.current;
    if (!canvas) return;
    if (canvas.width !== frame.width || canvas.height !== frame.height) {
      canvas.width = frame.width;
      canvas.height = frame.height;
    }
    canvas
      .getContext("2d", { colorSpace: "display-p3", alpha: false })!
      .putImageData(new ImageData(frame.rgba, frame.width, frame.height, { colorSpace: "display-p3" }), 0, 0);
    canvas.dataset.tookMs = frame.tookMs.toFixed(2);
    canvas.dataset.frame = String(frame.number);
    if (frame.area !== "preview") setCloseArea(frame.area);
  }, []);
  useFrames(draw);
  const shownSize = { width: Math.max(1, Math.round(box.width * pixelRatio)), height: Math.max(1, Math.round(box.height * pixelRatio)) };
  useRenderRequests(easel, detail, shownSize);

  const tool = useBenchState((state) => state.tool);
  const isReady = useBenchState((state) => state.isReady);
  const isMap = useBenchState((state) => state.look.kind === "map");
  const failure = useBenchState((state) => state.failure);
  const [isSpaceHeld, setSpaceHeld] = useSpaceKey();
  const drag = useRef<{ x: number; y: number; view: View } | undefined>(undefined);
  const [pull, setPull] = useState<Pull>();

  const pointIn = (event: { clientX: number; clientY: number }) => {
    const bounds = easel.current!.getBoundingClientRect();
    return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
  };
  const placeOf = (point: { x: number; y: number }) => {
    const x = (point.x - box.left) / box.width;
    const y = (point.y - box.top) / box.height;
    return x >= 0 && x < 1 && y >= 0 && y < 1 ? { x, y } : undefined;
  };
  const moves = tool === "move" || isSpaceHeld;
  const isPulling = tool === "pull-hue" || tool === "pull-tone" || tool === "pick-tones" || tool === "pick-hue";
  const paints = tool === "brush" || tool === "repair" || isExposing(tool);
  const hand = useDrawingHand(store);
  const touchOf = (event: {
    clientX: number;
    clientY: number;
    pressure: number;
    pointerType: string;
    shiftKey: boolean;
    altKey: boolean;
    ctrlKey: boolean;
  }) => {
    const point = pointIn(event);
    const long = Math.max(box.width, box.height);
    return {
      x: (point.x - box.left) / long,
      y: (point.y - box.top) / long,
      pressure: event.pointerType === "pen" && event.pressure > 0 ? event.pressure : 1,
      shift: event.shiftKey,
      alt: event.altKey,
      ctrl: event.ctrlKey,
    };
  };

  const onPointerDown = async (event: PointerEvent<HTMLDivElement>) => {
    if (event.button === 1 || (event.button === 0 && moves)) {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { ...pointIn(event), view };
      return;
    }
    const point = pointIn(event);
    const place = placeOf(point);
    if (event.button === 0 && tool === "pin" && place) return togglePin(bench, place, box);
    if (event.button === 0 && isDrawing(tool) && (event.target as Element).closest("canvas, [data-testid=easel]") && !hand.isBusy()) {
      event.currentTarget.setPointerCapture(event.pointerId);
      hand.begin(touchOf(event), event.pointerId);
      return;
    }
    if (event.button !== 0 || !isPulling || !place) return;
    const { currentTarget, pointerId } = event;
    currentTarget.setPointerCapture(pointerId);
    const touched = await bench.engine()?.read(place);
    const isHeld = currentTarget.hasPointerCapture(pointerId);
    // A pull needs the hand; what is picked is picked by a mere touch too.
    if (!touched || (!isHeld && tool !== "pick-tones" && tool !== "pick-hue")) return;
    const puller = beginPull(tool, touched, store);
    if ("refused" in puller) store.getState().set({ failure: puller.refused });
    else if (isHeld) setPull({ ...point, puller });
    else puller.finish();
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const point = pointIn(event);
    if (drag.current) {
      const { x, y, view: from } = drag.current;
      setZoomed(panned(picture, from, point.x - x, point.y - y, fit));
      return;
    }
    if (hand.isDown(event.pointerId)) {
      const moves = event.nativeEvent.getCoalescedEvents?.() ?? [];
      hand.move((moves.length > 0 ? moves : [event.nativeEvent]).map(touchOf));
    }
    if (pull && event.currentTarget.hasPointerCapture(event.pointerId)) pull.puller.pull(pull.y - point.y, event.altKey);
    const place = placeOf(point);
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

  const zoomTo = useCallback(
    (scale: number, point = { x: room.left + room.width / 2, y: room.top + room.height / 2 }) => {
      const next = zoomAt(picture, box, room, point, scale, fit);
      setZoomed(next.scale <= fit * 1.001 ? undefined : next);
    },
    // The latest geometry is all it needs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [size.width, size.height, view.scale, view.x, view.y],
  );
  useWheel(easel, (event) => {
    event.preventDefault();
    if (paints && event.shiftKey) return sizeBrush(store, (event.deltaY || event.deltaX) < 0 ? 1.1 : 1 / 1.1);
    zoomTo(wheelScale(view.scale, event.deltaY), pointIn(event));
  });
  useEffect(() => {
    const { view: actions } = bench;
    actions.current = {
      zoomBy: (factor) => zoomTo(view.scale * factor),
      fit: () => setZoomed(undefined),
      oneToOne: () => zoomTo(1 / pixelRatio),
    };
    return () => {
      actions.current = undefined;
    };
  }, [bench, zoomTo, view.scale, pixelRatio]);

  const closeLevel = closeArea && picture.levels[closeArea.level]!;
  const showsClose = detail && closeArea && closeArea.level === detail.level;
  return (
    <div className={styles.easel}>
      <div
        ref={easel}
        className={styles.surface}
        data-testid="easel"
        style={{ cursor: moves ? "grab" : isPulling ? "ns-resize" : tool === "pin" ? "copy" : paints ? "none" : "crosshair" }}
        onPointerDown={(event) => void onPointerDown(event)}
        onPointerMove={onPointerMove}
        onPointerLeave={() => store.getState().set({ reading: undefined })}
        onLostPointerCapture={onPointerEnd}
        onPointerCancel={onPointerEnd}
        onBlur={() => setSpaceHeld(false)}
      >
        {size.width > 0 && (
          <div
            className={styles.print}
            style={{ left: box.left - BORDER, top: box.top - BORDER, width: box.width + 2 * BORDER, height: box.height + 2 * BORDER }}
          >
            <div className={styles.sheet} style={{ left: BORDER, top: BORDER, width: box.width, height: box.height }}>
              <canvas
                ref={preview}
                className={styles.preview}
                data-testid="preview"
                aria-label={`${start.picture.name}, as a print`}
                role="img"
              />
              <canvas
                ref={close}
                className={styles.close}
                data-testid="close"
                hidden={!showsClose}
                style={
                  closeArea && closeLevel
                    ? {
                        left: (closeArea.x / closeLevel.width) * box.width,
                        top: (closeArea.y / closeLevel.height) * box.height,
                        width: (closeArea.width / closeLevel.width) * box.width,
                        height: (closeArea.height / closeLevel.height) * box.height,
                        imageRendering: view.scale * pixelRatio > closeLevel.scale * 1.01 ? "pixelated" : "auto",
                      }
                    : undefined
                }
              />
              <Pins />
              <RegionOverlay size={box} />
              <PassMarks size={box} />
              {isMap && <PrintingMap size={box} />}
            </div>
          </div>
        )}
        {!isReady && !failure && (
          <p className={styles.waiting} role="status">
            Laying the picture out…
          </p>
        )}
        {pull && <PullMark pull={pull} />}
        {paints && <BrushCursor easel={easel} long={Math.max(box.width, box.height)} />}
      </div>
      <div className={styles.tray} role="toolbar" aria-label="Tools" aria-orientation="vertical">
        {TOOLS.map(({ tool: name, label, key, hint }) => (
          <button key={name} type="button" title={`${hint} (${key})`} aria-pressed={tool === name} onClick={() => takeUp(store, name)}>
            {label}
          </button>
        ))}
        <hr />
        <button type="button" aria-pressed={!zoomed} title="The whole picture (F)" onClick={() => setZoomed(undefined)}>
          Fit
        </button>
        <button
          type="button"
          aria-pressed={Math.abs(view.scale * pixelRatio - 1) < 0.001}
          title="One picture pixel on one screen pixel (G)"
          onClick={() => zoomTo(1 / pixelRatio)}
        >
          1 : 1
        </button>
        <output className={styles.zoom} aria-label="Zoom">
          {Math.round(100 * view.scale * pixelRatio)} %
        </output>
      </div>
      <Readout />
      <Readings />
    </div>
  );
}

function PullMark({ pull: { x, y, puller } }: { pull: Pull }) {
  const words = useBenchState((state) => puller.words(state.plan));
  return (
    <div className={styles.pull} data-testid="pull" style={{ left: x, top: y }}>
      <span>{words}</span>
    </div>
  );
}

/** Draws each frame as it arrives and gives the buffer back. */
function useFrames(draw: (frame: Frame) => void): void {
  const { onFrame, engine } = useBench();
  useEffect(
    () =>
      onFrame((frame) => {
        draw(frame);
        engine()?.recycle(frame);
      }),
    [draw, onFrame, engine],
  );
}

/** Asks for a frame whenever what is to be seen changes. */
function useRenderRequests(easel: React.RefObject<HTMLElement | null>, detail: LevelArea | undefined, shownSize: Size): void {
  const { store, engine } = useBench();
  const latest = useRef({ detail, shownSize });
  const key = JSON.stringify([detail, shownSize]);
  useEffect(() => {
    latest.current = { detail, shownSize };
    const ask = () => {
      const state = store.getState();
      const { step, look, screens, pins, isBefore, isUpToHere } = state;
      const plan = state.isMaskIgnored ? planWithoutMask(state.plan, step) : state.plan;
      const seen = isBefore ? beforePlan(plan, step) : isUpToHere ? planUpTo(plan, step) : plan;
      const hand = isBefore ? undefined : handOf(state);
      const asked = engine()?.render({ plan: seen, hand, look, screens, pins, ...latest.current, isPeek: isBefore || state.isMaskIgnored });
      if (asked !== undefined && easel.current) easel.current.dataset.asked = String(asked); // equal to the frame drawn: nothing is under way
    };
    ask();
    return store.subscribe((state, old) => {
      if (
        state.plan !== old.plan ||
        state.step !== old.step ||
        state.look !== old.look ||
        state.isBefore !== old.isBefore ||
        state.isMaskIgnored !== old.isMaskIgnored ||
        state.isUpToHere !== old.isUpToHere ||
        state.screens !== old.screens ||
        state.pins !== old.pins ||
        state.isReady !== old.isReady
      )
        ask();
    });
    // The area is compared by value.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [store, engine, easel, key]);
}

function useSizeOf(element: React.RefObject<HTMLElement | null>): Size {
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return size;
}

function useWheel(element: React.RefObject<HTMLElement | null>, handle: (event: WheelEvent) => void): void {
  const latest = useRef(handle);
  useEffect(() => {
    latest.current = handle;
  });
  useEffect(() => {
    const target = element.current!;
    const listener = (event: WheelEvent) => latest.current(event);
    target.addEventListener("wheel", listener, { passive: false });
    return () => target.removeEventListener("wheel", listener);
  }, [element]);
}

/**
 * Whether the space bar is held to move the picture. It presses what has the focus, but not what was clicked last and has it from that.
 */
function useSpaceKey(): [boolean, (held: boolean) => void] {
  const [isHeld, setHeld] = useState(false);
  useEffect(() => {
    let clicked: EventTarget | null = null;
    let isDownHere = false;
    const onPress = (event: Event) => (clicked = event.target);
    const onDown = (event: KeyboardEvent) => {
      if (event.key === "Tab") clicked = null;
      const focused = event.target as HTMLElement;
      const isForFocused = focused.matches("button, a, [role]") && !focused.contains(clicked as Node | null);
      if (event.key !== " " || isTyping(event.target) || isForFocused) return;
      event.preventDefault();
      isDownHere = true;
      setHeld(true);
    };
    // A button that was clicked last would be pressed by the release of the key.
    const onUp = (event: KeyboardEvent) => {
      if (event.key !== " ") return;
      if (isDownHere) event.preventDefault();
      isDownHere = false;
      setHeld(false);
    };
    window.addEventListener("pointerdown", onPress, true);
    window.addEventListener("keydown", onDown, true);
    window.addEventListener("keyup", onUp, true);
    return () => {
      window.removeEventListener("pointerdown", onPress, true);
      window.removeEventListener("keydown", onDown, true);
      window.removeEventListener("keyup", onUp, true);
    };
  }, []);
  return [isHeld, setHeld];
}
