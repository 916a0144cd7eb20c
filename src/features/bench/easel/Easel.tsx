"use client";
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import { isWholeFrame, placingOf, printSizeAt } from "@/core/frame/frame";
import type { Frame, LevelArea } from "@/engine/messages";
import { useBench, useBenchState } from "../state/BenchContext";
import { isDrawing, isExposing } from "../tools/tools";
import { BrushCursor } from "./BrushCursor";
import { useDrawingHand } from "../tools/drawing/useDrawingHand";
import { beginPull, type Puller } from "../tools/pulling";
import { Pins, togglePin } from "./Pins";
import { PassMarks, PrintMarks } from "./PassMarks";
import { boxRound, framingGeometry, geometryOf, matrixOnPrint, ownGeometry, partsOnPicture, pointOnPicture } from "./geometry";
import { GeometryProvider } from "./GeometryContext";
import { CropOverlay } from "../frame/CropOverlay";
import { PrintingMap } from "./PrintingMap";
import { Readings } from "./Readings";
import { RegionOverlay } from "../regions/RegionOverlay";
import { sizeBrush } from "../tools/brushSize";
import { Readout } from "./Readout";
import { ToolTray } from "./ToolTray";
import { useFrames, useRenderRequests } from "./useFrames";
import { useSizeOf } from "./useSizeOf";
import { useSpaceKey } from "./useSpaceKey";
import { useWheel } from "./useWheel";
import { detailArea, fitScale, fitView, panned, printBox, wheelScale, zoomAt, type Box, type View } from "./view";
import styles from "./Easel.module.css";

/** White of the print around the picture, and easel around that, in CSS pixels. */
const BORDER = 14;
const EASEL_MARGIN = 16;
const TRAY_WIDTH = 108;

interface Pull {
  x: number;
  y: number;
  puller: Puller;
}

/** The print on a mid-grey easel: zoom, drag, read, pull. */
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
  const frame = useBenchState((state) => state.plan.frame);
  // While it is framed all of the picture is shown, turned as the print will be.
  const isFraming = useBenchState((state) => state.step.stage === "frame");
  const full = useMemo(() => (isFraming ? boxRound(frame, picture) : placingOf(frame, picture)), [isFraming, frame, picture]);
  const fit = Math.min(fitScale(full, room), 1);
  const [zoomed, setZoomed] = useState<View>();
  const view = (isFraming ? undefined : zoomed) ?? { ...fitView(full, room), scale: fit };
  const box = printBox(full, room, view);
  const geometry = isFraming ? framingGeometry(frame, picture, box) : geometryOf(frame, picture, box);
  const pixelRatio = typeof devicePixelRatio === "number" ? devicePixelRatio : 1;
  const detail = size.width > 0 && !isFraming ? detailArea(picture, full, size, box, view, pixelRatio) : undefined;

  const preview = useRef<HTMLCanvasElement>(null);
  const close = useRef<HTMLCanvasElement>(null);
  const [closeArea, setCloseArea] = useState<LevelArea>();
  const [isDrawnWhole, setDrawnWhole] = useState<boolean>();

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
    else setDrawnWhole(frame.isWhole);
  }, []);
  useFrames(draw);
  // While the angle changes the picture stays as large as it is rendered, and the browser turns it.
  const upright = isFraming ? scaled(picture, Math.min(fitScale(boxRound({ ...frame, degrees: 0 }, picture), room), 1)) : box;
  const shownSize = {
    width: Math.max(1, Math.round(upright.width * pixelRatio)),
    height: Math.max(1, Math.round(upright.height * pixelRatio)),
  };
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
    const at = { x: point.x - box.left, y: point.y - box.top };
    if (at.x < 0 || at.x >= box.width || at.y < 0 || at.y >= box.height) return undefined;
    const parts = partsOnPicture(geometry, at);
    return parts.x >= 0 && parts.x < 1 && parts.y >= 0 && parts.y < 1 ? parts : undefined;
  };
  const pointAt = (event: { clientX: number; clientY: number }) => {
    const point = pointIn(event);
    return pointOnPicture(geometry, { x: point.x - box.left, y: point.y - box.top });
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
    return {
      ...pointAt(event),
      pressure: event.pointerType === "pen" && event.pressure > 0 ? event.pressure : 1,
      shift: event.shiftKey,
      alt: event.altKey,
      ctrl: event.ctrlKey,
    };
  };

  const onPointerDown = async (event: PointerEvent<HTMLDivElement>) => {
    if (!isFraming && (event.button === 1 || (event.button === 0 && moves))) {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { ...pointIn(event), view };
      return;
    }
    const point = pointIn(event);
    const place = placeOf(point);
    if (event.button === 0 && tool === "pin" && place) return togglePin(bench, place, geometry.picture);
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
      setZoomed(panned(full, from, point.x - x, point.y - y, fit));
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
      const next = zoomAt(full, box, room, point, scale, fit);
      setZoomed(next.scale <= fit * 1.001 ? undefined : next);
    },
    // The latest geometry is all it needs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [size.width, size.height, view.scale, view.x, view.y, full],
  );
  useWheel(easel, (event) => {
    event.preventDefault();
    if (isFraming) return;
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

  const overPicture = {
    width: geometry.picture.width,
    height: geometry.picture.height,
    transform: `matrix(${matrixOnPrint(geometry).join(", ")})`,
    transformOrigin: "0 0",
  };
  // What was drawn for another way of showing it would be stretched.
  const fits = isDrawnWhole === undefined || isDrawnWhole === (isFraming || isWholeFrame(frame));
  const closeLevel = closeArea && picture.levels[closeArea.level]!;
  const closePrint = closeLevel && printSizeAt(full, picture, closeLevel);
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
            data-framing={isFraming}
            style={{ left: box.left - BORDER, top: box.top - BORDER, width: box.width + 2 * BORDER, height: box.height + 2 * BORDER }}
          >
            <div className={styles.sheet} style={{ left: BORDER, top: BORDER, width: box.width, height: box.height }}>
              <canvas
                ref={preview}
                className={styles.preview}
                style={{
                  visibility: fits ? undefined : "hidden",
                  ...(isFraming && overPicture),
                }}
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
                  closeArea && closePrint
                    ? {
                        left: (closeArea.x / closePrint.width) * box.width,
                        top: (closeArea.y / closePrint.height) * box.height,
                        width: (closeArea.width / closePrint.width) * box.width,
                        height: (closeArea.height / closePrint.height) * box.height,
                        imageRendering: view.scale * pixelRatio > closeLevel.scale * 1.01 ? "pixelated" : "auto",
                      }
                    : undefined
                }
              />
              <GeometryProvider value={{ geometry, pointAt }}>
                <Pins />
                <div className={styles.overPicture} style={overPicture}>
                  <RegionOverlay size={geometry.picture} />
                  <PassMarks size={geometry.picture} />
                  {isFraming && <CropOverlay size={geometry.picture} />}
                </div>
                {isMap && <PrintingMap size={box} />}
              </GeometryProvider>
              <GeometryProvider value={{ geometry: ownGeometry(box), pointAt }}>
                <PrintMarks size={box} />
              </GeometryProvider>
            </div>
          </div>
        )}
        {!isReady && !failure && (
          <p className={styles.waiting} role="status">
            Laying the picture out…
          </p>
        )}
        {pull && <PullMark pull={pull} />}
        {paints && <BrushCursor easel={easel} long={geometry.long} />}
      </div>
      <ToolTray
        scale={view.scale * pixelRatio}
        isFit={isFraming || !zoomed}
        isFixed={isFraming}
        onFit={() => setZoomed(undefined)}
        onOneToOne={() => zoomTo(1 / pixelRatio)}
      />
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

const scaled = ({ width, height }: { width: number; height: number }, by: number) => ({ width: width * by, height: height * by });
