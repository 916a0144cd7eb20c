import type { LevelArea } from "@/engine/source/levelFetcher";
import { useCallback, useMemo, type RefObject } from "react";
import { useStore } from "zustand";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import { placingOf, type Frame } from "@/core/frame/frame";
import type { Point } from "@/core/region/region";
import type { PixelPoint } from "@/core/units";
import type { Size } from "@/core/spatial/areaReduce";
import type { Place } from "@/engine/messages/messages";
import { usePixelRatio } from "@/features/shared/usePixelRatio";
import type { ViewStore } from "./viewStore";
import { boxRound, framingGeometry, geometryOf, partsOnPicture, pointOnPicture, type Geometry } from "./geometry";
import { useSizeOf } from "./useSizeOf";
import { detailArea, fitScale, fitView, panned, printBox, zoomAt, type Box, type View } from "./view";

/** White of the print around the picture, in CSS pixels. */
export const BORDER = 14;

/** How a picture lies on an easel, and what of it is to be rendered. */
export interface PictureOn {
  /** The easel itself; 0 before it is laid out. */
  size: Size;
  /** The print at full size, or while it is framed the box round all of the picture. */
  full: Size;
  view: View;
  box: Box;
  geometry: Geometry;
  /** While it is framed all of the picture is shown, turned as the print will be, and no larger or smaller than fits. */
  isFraming: boolean;
  isFit: boolean;
  pixelRatio: number;
  /** The part seen enlarged; absent where the preview serves. */
  detail: LevelArea | undefined;
  /** How large all that is shown is to be rendered, in device pixels. */
  shownSize: Size;
  showAll(): void;
  zoomTo(scale: number, about?: PixelPoint): void;
  /** Drags it from where it lay by CSS pixels. */
  pan(from: View, dx: number, dy: number): void;
  /** Carries what lay under one place of the easel to another, so much larger than it was. */
  carry(from: View, about: PixelPoint, to: PixelPoint, ratio: number): void;
  /**
   * Where a pointer is: on the easel in CSS pixels, on the picture in its long edges, and as parts of it; the last only where there is
   * picture.
   */
  pointIn(event: Pointer): PixelPoint;
  pointAt(event: Pointer): Point;
  placeAt(event: Pointer): Place | undefined;
}

type Pointer = Pick<MouseEvent, "clientX" | "clientY">;

/** What is looked at, and where there is room for it. */
export interface Looked {
  picture: PreparedPicture;
  frame: Frame;
  /** While it is framed all of the picture is shown, turned as the print will be. */
  isFraming: boolean;
  /** Where on an easel of a size the print may lie. */
  roomIn(easel: Size): Box;
}

/** A view of a picture: how it lies on an easel by its own store. */
export function usePictureView(
  easel: RefObject<HTMLDivElement | null>,
  store: ViewStore,
  { picture, frame, isFraming, roomIn }: Looked,
): PictureOn {
  const size = useSizeOf(easel);
  const room = roomIn(size);
  const full = useMemo(() => (isFraming ? boxRound(frame, picture) : placingOf(frame, picture)), [isFraming, frame, picture]);
  const fit = Math.min(fitScale(full, room), 1);
  const zoomed = useStore(store, (state) => state.zoomed);
  const setZoomed = useCallback((to: View | undefined) => store.setState({ zoomed: to }), [store]);
  // Another frame may fit larger than one had zoomed to.
  const isFit = isFraming || !zoomed || zoomed.scale <= fit;
  const view = isFit ? { ...fitView(full, room), scale: fit } : zoomed;
  const box = printBox(full, room, view);
  const geometry = isFraming ? framingGeometry(frame, picture, box) : geometryOf(frame, picture, box);
  const pixelRatio = usePixelRatio();
  // While the angle changes the picture stays as large as it is rendered, and the browser turns it.
  const upright = isFraming ? scaled(picture, Math.min(fitScale(boxRound({ ...frame, degrees: 0 }, picture), room), 1)) : box;

  const showAll = useCallback(() => setZoomed(undefined), [setZoomed]);
  const pointIn = (event: Pointer) => {
    const bounds = easel.current!.getBoundingClientRect();
    return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
  };
  const inBox = (event: Pointer) => {
    const { x, y } = pointIn(event);
    return { x: x - box.left, y: y - box.top };
  };
  const zoomTo = useCallback(
    (scale: number, about = { x: room.left + room.width / 2, y: room.top + room.height / 2 }) => {
      if (isFraming) return;
      const next = zoomAt(full, box, room, about, scale, fit);
      setZoomed(next.scale <= fit * 1.001 ? undefined : next);
    },
    // The latest geometry is all it needs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [size.width, size.height, view.scale, view.x, view.y, full, isFraming],
  );
  return {
    size,
    full,
    view,
    box,
    geometry,
    isFraming,
    isFit,
    pixelRatio,
    detail: size.width > 0 && !isFraming ? detailArea(picture, full, size, box, view, pixelRatio) : undefined,
    shownSize: { width: Math.max(1, Math.round(upright.width * pixelRatio)), height: Math.max(1, Math.round(upright.height * pixelRatio)) },
    showAll,
    zoomTo,
    pan: (from, dx, dy) => setZoomed(panned(full, from, dx, dy, fit)),
    carry(from, about, to, ratio) {
      if (isFraming) return;
      const larger = zoomAt(full, printBox(full, room, from), room, about, from.scale * ratio, fit);
      const next = panned(full, larger, to.x - about.x, to.y - about.y, fit);
      setZoomed(next.scale <= fit * 1.001 ? undefined : next);
    },
    pointIn,
    pointAt: (event) => pointOnPicture(geometry, inBox(event)),
    placeAt(event) {
      const at = inBox(event);
      if (!isWithin(at, box.width, box.height)) return undefined;
      const parts = partsOnPicture(geometry, at);
      return isWithin(parts, 1, 1) ? parts : undefined;
    },
  };
}

const isWithin = ({ x, y }: { x: number; y: number }, width: number, height: number) => x >= 0 && x < width && y >= 0 && y < height;
const scaled = ({ width, height }: Size, by: number): Size => ({ width: width * by, height: height * by });
