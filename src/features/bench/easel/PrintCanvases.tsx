"use client";
import { useCallback, useRef, useState, type CSSProperties } from "react";
import { isWholeFrame, printSizeAt } from "@/core/frame/frame";
import type { Frame, LevelArea } from "@/engine/messages";
import { useBench, useBenchState } from "../state/BenchContext";
import { useFrames } from "./useFrames";
import type { EaselView } from "./useEaselView";
import styles from "./Easel.module.css";

/** The frames the worker renders: all that is shown, and over it the part that is seen enlarged. `overPicture` brings what lies on the picture onto the print. */
export function PrintCanvases({ on, overPicture }: { on: EaselView; overPicture: CSSProperties }) {
  const { start } = useBench();
  const frame = useBenchState((state) => state.plan.frame);
  const preview = useRef<HTMLCanvasElement>(null);
  const close = useRef<HTMLCanvasElement>(null);
  const [closeArea, setCloseArea] = useState<LevelArea>();
  const [isDrawnWhole, setDrawnWhole] = useState<boolean>();
  const draw = useCallback((drawn: Frame) => {
    const canvas = drawn.area === "preview" ? preview.current : close.current;
    if (!canvas) return;
    drawOn(canvas, drawn);
    if (drawn.area === "preview") setDrawnWhole(drawn.isWhole);
    else setCloseArea(drawn.area);
  }, []);
  useFrames(draw);
  // What was drawn for another way of showing it would be stretched.
  const fits = isDrawnWhole === undefined || isDrawnWhole === (on.isFraming || isWholeFrame(frame));
  const closeStyle = closeArea && placeOf(closeArea, on, start.prepared);
  return (
    <>
      <canvas
        ref={preview}
        className={styles.preview}
        style={{ visibility: fits ? undefined : "hidden", ...(on.isFraming && overPicture) }}
        data-testid="preview"
        aria-label={`${start.picture.name}, as a print`}
        role="img"
      />
      <canvas
        ref={close}
        className={styles.close}
        data-testid="close"
        hidden={!closeArea || closeArea.level !== on.detail?.level}
        style={closeStyle}
      />
    </>
  );
}

function drawOn(canvas: HTMLCanvasElement, { width, height, rgba, tookMs, number }: Frame): void {
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  canvas
    .getContext("2d", { colorSpace: "display-p3", alpha: false })!
    .putImageData(new ImageData(rgba, width, height, { colorSpace: "display-p3" }), 0, 0);
  canvas.dataset.tookMs = tookMs.toFixed(2);
  canvas.dataset.frame = String(number);
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
