"use client";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { FromPresenter } from "@/engine/messages/messages";
import type { LevelArea } from "@/engine/source/levelFetcher";
import { useEffect, useLayoutEffect, useRef, useState, type ComponentProps, type CSSProperties } from "react";
import { printSizeAt } from "@/core/frame/frame";
import { withDrawn, withWanted, type PrintCanvas } from "./printCanvasList";
import type { PictureOn } from "./usePictureView";
import styles from "./PictureCanvases.module.css";

/** Where frames come from: a view of a picture, for as long as it is open. */
export interface Frames {
  drawOn(id: number, canvas: HTMLCanvasElement): void;
  /** Follows what becomes of frames; returns how to stop. */
  onPresented(listener: (message: FromPresenter) => void): () => void;
}

interface Props {
  on: PictureOn;
  frames: Frames;
  picture: PreparedPicture;
  /** Whether all of the picture is shown, whatever the print's frame. */
  isWhole: boolean;
  label: string;
  /** Brings what lies on the picture onto the print, while that is framed. */
  overPicture?: CSSProperties;
}

/** What is rendered of a print: all that is shown, and over it the part that is seen enlarged. */
export function PictureCanvases({ on, frames, picture, isWhole, label, overPicture }: Props) {
  const [canvases, setCanvases] = useState<readonly PrintCanvas[]>([]);
  useEffect(
    () =>
      frames.onPresented((message) =>
        setCanvases((list) =>
          message.type === "wanted" ? withWanted(list, message.id, message.screen) : withDrawn(list, message.id, message.screen),
        ),
      ),
    [frames],
  );
  return canvases.map(({ id, screen, isDrawn }) => {
    const { area } = screen;
    // What was drawn for another way of showing it would be stretched.
    const isSeen = isDrawn && screen.isWhole === isWhole;
    return area === "preview" ? (
      <DrawnCanvas
        key={id}
        wish={id}
        frames={frames}
        className={styles.preview}
        style={{ visibility: isSeen ? undefined : "hidden", ...(on.isFraming && overPicture) }}
        data-testid={isDrawn ? "preview" : undefined}
        aria-label={label}
        role="img"
      />
    ) : (
      <DrawnCanvas
        key={id}
        wish={id}
        frames={frames}
        className={styles.close}
        data-testid={isDrawn ? "close" : undefined}
        hidden={!isSeen || area.level !== on.detail?.level}
        style={placeOf(area, on, picture)}
      />
    );
  });
}

/** A canvas given for a wish, with what was drawn last told to those who measure and test. */
function DrawnCanvas({ wish, frames, ...attributes }: { wish: number; frames: Frames } & ComponentProps<"canvas">) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const { dataset } = canvas.current!;
    frames.drawOn(wish, canvas.current!);
    return frames.onPresented((message) => {
      if (message.type !== "drawn" || message.id !== wish) return;
      dataset.tookMs = message.tookMs.toFixed(2);
      dataset.drawnAt = (message.drawnAt - performance.timeOrigin).toFixed(2);
      dataset.scale = String(message.scale);
      dataset.frame = String(message.number);
    });
  }, [wish, frames]);
  return <canvas ref={canvas} {...attributes} />;
}

/** Where a part of the print at a level lies on it as it is shown; its pixels are seen as such once they are larger than the screen's. */
function placeOf(
  area: LevelArea,
  { full, box, view, pixelRatio }: PictureOn,
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
