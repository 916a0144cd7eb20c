import {
  pictureAlongPrint,
  pictureAtPrint,
  placedAround,
  placingAt,
  placingOf,
  printAtPicture,
  type Frame,
  type Placing,
} from "@/core/frame/frame";
import type { Point } from "@/core/region/region";
import type { PixelPoint } from "@/core/units";
import type { Place } from "@/engine/messages/messages";
import type { Size } from "@/core/spatial/areaReduce";

/** Where a print shown on the page lies in its picture. */
export interface Geometry {
  /** The print as it is shown, and the whole picture at that size; CSS pixels. */
  print: Size;
  picture: Size;
  /** CSS pixels of the print to those of the picture. */
  placing: Placing;
  /** CSS pixels to the picture's long edge. */
  long: number;
}

/** A print of a frame, shown at a size. */
export function geometryOf(frame: Frame, picture: Size, shown: Size): Geometry {
  const full = placingOf(frame, picture);
  const by = longEdge(shown) / longEdge(full);
  const isPicture = full.width === picture.width && full.height === picture.height;
  const print = { width: shown.width, height: shown.height };
  const whole = isPicture ? print : { width: by * picture.width, height: by * picture.height };
  return { print, picture: whole, placing: placingAt(full, picture, whole, print), long: longEdge(whole) };
}

/** All of a picture, turned as its frame is, shown in a box round it. */
export function framingGeometry(frame: Frame, picture: Size, shown: Size): Geometry {
  const by = Math.max(shown.width, shown.height) / longEdge(boxRound(frame, picture));
  const whole = { width: by * picture.width, height: by * picture.height };
  const print = { width: shown.width, height: shown.height };
  return { print, picture: whole, placing: placedAround({ x: whole.width / 2, y: whole.height / 2 }, print, frame), long: longEdge(whole) };
}

/** The size of the upright box round a picture that is turned. */
export function boxRound(frame: Frame, { width, height }: Size): Size {
  const { across, down } = placedAround({ x: 0, y: 0 }, { width: 1, height: 1 }, frame);
  return {
    width: width * Math.abs(across.x) + height * Math.abs(across.y),
    height: width * Math.abs(down.x) + height * Math.abs(down.y),
  };
}

const longEdge = ({ width, height }: Size) => Math.max(width, height);

/** A print that is its picture. */
export function ownGeometry(shown: Size): Geometry {
  return geometryOf({ turns: 0, degrees: 0, mirrored: false, crop: null }, shown, shown);
}

/** A place of the print in CSS pixels, on the picture in its long edges. */
export function pointOnPicture({ placing, long }: Geometry, at: PixelPoint): Point {
  const { x, y } = pictureAtPrint(placing, at.x, at.y);
  return { x: x / long, y: y / long };
}

/** The same as parts of the picture's width and height. */
export function partsOnPicture({ placing, picture }: Geometry, at: PixelPoint): Place {
  const { x, y } = pictureAtPrint(placing, at.x, at.y);
  return { x: x / picture.width, y: y / picture.height };
}

/** Parts of the picture's width and height, as a place of the print in CSS pixels. */
export function placeOnPrint({ placing, picture }: Geometry, parts: Place): PixelPoint {
  return printAtPicture(placing, parts.x * picture.width, parts.y * picture.height);
}

/** A movement over the print in CSS pixels, on the picture in its long edges. */
export function moveOnPicture({ placing, long }: Geometry, by: PixelPoint): Point {
  const { x, y } = pictureAlongPrint(placing, by.x, by.y);
  return { x: x / long, y: y / long };
}

/** What draws in CSS pixels of the picture, brought onto the print: the numbers of a CSS `matrix()`. */
export function matrixOnPrint({ placing }: Geometry): [number, number, number, number, number, number] {
  const [origin, across, down] = [printAtPicture(placing, 0, 0), printAtPicture(placing, 1, 0), printAtPicture(placing, 0, 1)];
  return [across.x - origin.x, across.y - origin.y, down.x - origin.x, down.y - origin.y, origin.x, origin.y];
}
