"use client";
import { useImperativeHandle, useRef } from "react";
import { isWholeFrame } from "@/core/frame/frame";
import type { PixelPoint } from "@/core/units";
import { CropOverlay } from "../frame/CropOverlay";
import { TwinLines } from "./TwinLines";
import { SpotsOverlay } from "../spots/SpotsOverlay";
import { RegionOverlay } from "../regions/RegionOverlay";
import { useBench, useBenchState } from "../state/BenchContext";
import { sizeBrush } from "../tools/brushSize";
import { BeforeSign } from "./BeforeSign";
import { BrushCursor } from "./BrushCursor";
import { matrixOnPrint, ownGeometry } from "@/features/picture-view/geometry";
import { GeometryProvider } from "@/features/picture-view/GeometryContext";
import { Message } from "./Message";
import { PassMarks, PrintMarks } from "./PassMarks";
import { Pins } from "./Pins";
import { PictureCanvases } from "@/features/picture-view/PictureCanvases";
import { PrintingMap } from "./PrintingMap";
import { Readings } from "./Readings";
import { Readout } from "./Readout";
import { ToolTray } from "./ToolTray";
import { useEaselHand, type Pull } from "./useEaselHand";
import { useEaselView } from "./useEaselView";
import { BORDER, type PictureOn } from "@/features/picture-view/usePictureView";
import { useKeyCursor } from "@/features/picture-view/useKeyCursor";
import { useRenderRequests } from "./useRenderRequests";
import { useWheel } from "@/features/picture-view/useWheel";
import { wheelScale } from "@/features/picture-view/view";
import styles from "./Easel.module.css";

/** The print on a mid-grey easel: zoom, drag, read, pull. */
export function Easel() {
  const bench = useBench();
  const { store } = bench;
  const easel = useRef<HTMLDivElement>(null);
  const on = useEaselView(easel);
  const { view, pixelRatio, zoomTo, showAll, isFraming, isFit } = on;
  useRenderRequests(easel, on.detail, on.shownSize);
  const { handlers, cursor, paints, pull, isHolding } = useEaselHand(on);
  const keys = useKeyCursor(easel, isHolding);
  useWheel(easel, (event) => {
    event.preventDefault();
    if (paints && event.shiftKey) return sizeBrush(store, (event.deltaY || event.deltaX) < 0 ? 1.1 : 1 / 1.1);
    zoomTo(wheelScale(view.scale, event.deltaY), on.pointIn(event));
  });
  useImperativeHandle(
    bench.view,
    () => ({ zoomBy: (factor) => zoomTo(view.scale * factor), fit: showAll, oneToOne: () => zoomTo(1 / pixelRatio) }),
    [zoomTo, showAll, view.scale, pixelRatio],
  );
  const isReady = useBenchState((state) => state.isReady);
  const failure = useBenchState((state) => state.failure);
  return (
    <div className={styles.easel}>
      <div
        ref={easel}
        id="easel"
        tabIndex={0}
        role="application"
        aria-label="The picture: arrows move a cursor on it, Enter presses and lets go"
        className={styles.surface}
        data-testid="easel"
        data-keys={keys.at !== undefined}
        style={{ cursor }}
        onKeyDown={keys.onKeyDown}
        {...handlers}
      >
        {on.size.width > 0 && <Sheet on={on} />}
        {!isReady && !failure && (
          <p className={styles.waiting} role="status">
            Laying the picture out…
          </p>
        )}
        {keys.at && <KeyCursor at={keys.at} />}
        {pull && <PullMark pull={pull} />}
        {paints && <BrushCursor easel={easel} long={on.geometry.long} />}
      </div>
      <ToolTray
        scale={view.scale * pixelRatio}
        isFit={isFit}
        isFixed={isFraming}
        onFit={showAll}
        onOneToOne={() => zoomTo(1 / pixelRatio)}
      />
      <BeforeSign />
      <Readout />
      <Message />
      <Readings />
    </div>
  );
}

/** The print with its border, and all that is drawn over it: in the picture's own places, or in the print's. */
function Sheet({ on }: { on: PictureOn }) {
  const { start, frames } = useBench();
  const isMap = useBenchState((state) => state.look.kind === "map");
  const frame = useBenchState((state) => state.plan.frame);
  const { box, geometry, isFraming, pointAt } = on;
  const { width, height } = geometry.picture;
  const overPicture = { width, height, transform: `matrix(${matrixOnPrint(geometry).join(", ")})`, transformOrigin: "0 0" };
  return (
    <div
      className={styles.print}
      data-framing={isFraming}
      style={{ left: box.left - BORDER, top: box.top - BORDER, width: box.width + 2 * BORDER, height: box.height + 2 * BORDER }}
    >
      <div className={styles.sheet} style={{ left: BORDER, top: BORDER, width: box.width, height: box.height }}>
        <PictureCanvases
          on={on}
          frames={frames}
          picture={start.prepared}
          isWhole={isFraming || isWholeFrame(frame)}
          label={`${start.picture.name}, as a print`}
          overPicture={overPicture}
        />
        <GeometryProvider value={{ geometry, pointAt }}>
          <Pins />
          <div className={styles.overPicture} style={overPicture}>
            <RegionOverlay size={geometry.picture} />
            <TwinLines size={geometry.picture} />
            <SpotsOverlay size={geometry.picture} />
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
  );
}

function KeyCursor({ at: { x, y } }: { at: PixelPoint }) {
  return (
    <svg className={styles.keyCursor} style={{ left: x, top: y }} data-testid="key-cursor" aria-hidden>
      <path d="M-14,0H-4M4,0H14M0,-14V-4M0,4V14" />
      <path d="M-14,0H-4M4,0H14M0,-14V-4M0,4V14" />
    </svg>
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
