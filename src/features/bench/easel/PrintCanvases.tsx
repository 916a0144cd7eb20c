"use client";
import type { LevelArea } from "@/engine/source/levelFetcher";
import { useEffect, useLayoutEffect, useRef, useState, type ComponentProps, type CSSProperties } from "react";
import { isWholeFrame, printSizeAt } from "@/core/frame/frame";
import { useBench, useBenchState } from "../state/BenchContext";
import { withDrawn, withWanted, type PrintCanvas } from "./printCanvasList";
import type { EaselView } from "./useEaselView";
import styles from "./Easel.module.css";

/**
 * What is rendered of the print: all that is shown, and over it the part that is seen enlarged. `overPicture` brings what lies on the
 * picture onto the print.
 */
export function PrintCanvases({ on, overPicture }: { on: EaselView; overPicture: CSSProperties }) {
  const { start, onPresented } = useBench();
  const frame = useBenchState((state) => state.plan.frame);
  const [canvases, setCanvases] = useState<readonly PrintCanvas[]>([]);
  useEffect(
    () =>
      onPresented((message) =>
        setCanvases((list) =>
          message.type === "wanted" ? withWanted(list, message.id, message.screen) : withDrawn(list, message.id, message.screen),
        ),
      ),
    [onPresented],
  );
  const isWhole = on.isFraming || isWholeFrame(frame);
  return canvases.map(({ id, screen, isDrawn }) => {
    const { area } = screen;
    // What was drawn for another way of showing it would be stretched.
    const isSeen = isDrawn && screen.isWhole === isWhole;
    return area === "preview" ? (
      <DrawnCanvas
        key={id}
        wish={id}
        className={styles.preview}
        style={{ visibility: isSeen ? undefined : "hidden", ...(on.isFraming && overPicture) }}
        data-testid={isDrawn ? "preview" : undefined}
        aria-label={`${start.picture.name}, as a print`}
        role="img"
      />
    ) : (
      <DrawnCanvas
        key={id}
        wish={id}
        className={styles.close}
        data-testid={isDrawn ? "close" : undefined}
        hidden={!isSeen || area.level !== on.detail?.level}
        style={placeOf(area, on, start.prepared)}
      />
    );
  });
}

/** A canvas given for a wish, with what was drawn last told to those who measure and test. */
function DrawnCanvas({ wish, ...attributes }: { wish: number } & ComponentProps<"canvas">) {
  const { engine, onPresented } = useBench();
  const canvas = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const { dataset } = canvas.current!;
    engine()?.drawOn(wish, canvas.current!);
    return onPresented((message) => {
      if (message.type !== "drawn" || message.id !== wish) return;
      dataset.tookMs = message.tookMs.toFixed(2);
      dataset.drawnAt = (message.drawnAt - performance.timeOrigin).toFixed(2);
      dataset.scale = String(message.scale);
      dataset.frame = String(message.number);
    });
  }, [wish, engine, onPresented]);
  return <canvas ref={canvas} {...attributes} />;
}

/** Where a part of the print at a level lies on it as it is shown; its pixels are seen as such once they are larger than the screen's. */
function placeOf(
  area: LevelArea,
  { full, box, view, pixelRatio }: EaselView,
  picture: { width: number; height: number; levels: readonly { width: number; height: number; scale: number }[] },
): CSSProperties {
  const level = picture.levels[area.level]!;
  const print = printSizeAt(full, picture, level);
  const [across, down] = [box.width / print.width, box.height / print.height];
  return {
    left: area.x * across,
    top: area.y * down,
    width: area.width * across,
    height: area.height * down,
    imageRendering: view.scale * pixelRatio > level.scale * 1.01 ? "pixelated" : "auto",
  };
}
