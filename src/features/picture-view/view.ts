import type { LevelArea } from "@/engine/source/levelFetcher";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import { printSizeAt } from "@/core/frame/frame";
import type { Size } from "@/core/spatial/areaReduce";

/** How the print lies on the easel. */
export interface View {
  /** CSS pixels for each pixel of the print at full size. */
  scale: number;
  /** The place of the print (0–1 each way) in the middle of the easel. */
  x: number;
  y: number;
}

export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

export const MOST_ENLARGED = 8;
const WHEEL_STEP = 1.2;
/** Print kept ready beyond the edges of what is seen, in level pixels, so that a small drag needs nothing new. */
const MARGIN = 160;

/** The scale at which the whole print fits into a room. */
export function fitScale(print: Size, room: Size): number {
  return Math.max(Math.min(room.width / print.width, room.height / print.height), 1e-4);
}

/** The whole print in the middle of a room. */
export function fitView(print: Size, room: Size): View {
  return { scale: fitScale(print, room), x: 0.5, y: 0.5 };
}

/** Where the print lies in the easel, in CSS pixels, on whole pixels so that 1:1 is sharp. */
export function printBox(print: Size, room: Box, view: View): Box {
  const width = Math.round(print.width * view.scale);
  const height = Math.round(print.height * view.scale);
  const middleX = room.left + room.width / 2;
  const middleY = room.top + room.height / 2;
  return { left: Math.round(middleX - view.x * width), top: Math.round(middleY - view.y * height), width, height };
}

/** Zoomed about a point of the easel that stays where it is. */
export function zoomAt(print: Size, box: Box, room: Box, point: { x: number; y: number }, scale: number, fit: number): View {
  const bounded = Math.min(Math.max(scale, fit), Math.max(MOST_ENLARGED, fit));
  const underX = (point.x - box.left) / box.width;
  const underY = (point.y - box.top) / box.height;
  const x = underX - (point.x - room.left - room.width / 2) / (print.width * bounded);
  const y = underY - (point.y - room.top - room.height / 2) / (print.height * bounded);
  return keptInside({ scale: bounded, x, y }, fit);
}

/** The view after dragging the print by CSS pixels. */
export function panned(print: Size, view: View, dx: number, dy: number, fit: number): View {
  return keptInside({ ...view, x: view.x - dx / (print.width * view.scale), y: view.y - dy / (print.height * view.scale) }, fit);
}

function keptInside(view: View, fit: number): View {
  if (view.scale <= fit * 1.001) return { scale: fit, x: 0.5, y: 0.5 };
  return { ...view, x: Math.min(Math.max(view.x, 0), 1), y: Math.min(Math.max(view.y, 0), 1) };
}

export function wheelScale(scale: number, deltaY: number): number {
  return scale * WHEEL_STEP ** (-Math.sign(deltaY) * Math.min(Math.abs(deltaY) / 100, 2));
}

/**
 * The part of the print at a level that must be rendered to show what the easel shows, or undefined where the preview is fine enough.
 * `pixelRatio` is device pixels for each CSS pixel.
 */
export function detailArea(
  picture: PreparedPicture,
  print: Size,
  easel: Size,
  box: Box,
  view: View,
  pixelRatio: number,
): LevelArea | undefined {
  const needed = view.scale * pixelRatio;
  const preview = picture.levels.length - 1;
  if (preview === 0 || picture.levels[preview]!.scale >= needed * 0.98) return undefined;
  const fine = picture.levels.findLastIndex((level, i) => i < preview && level.scale >= needed * 0.98);
  const index = Math.max(fine, 0);
  const level = printSizeAt(print, picture, picture.levels[index]!);
  const toLevelX = (cssX: number) => ((cssX - box.left) / box.width) * level.width;
  const toLevelY = (cssY: number) => ((cssY - box.top) / box.height) * level.height;
  const left = Math.floor(Math.min(Math.max(toLevelX(0) - MARGIN, 0), level.width - 1));
  const top = Math.floor(Math.min(Math.max(toLevelY(0) - MARGIN, 0), level.height - 1));
  const right = Math.ceil(Math.min(Math.max(toLevelX(easel.width) + MARGIN, left + 1), level.width));
  const bottom = Math.ceil(Math.min(Math.max(toLevelY(easel.height) + MARGIN, top + 1), level.height));
  return { level: index, x: left, y: top, width: right - left, height: bottom - top };
}
