import type { Length, XY } from "../units";
import { fitLongEdge, type Size } from "../spatial/areaReduce";

/**
 * How a print is cut out of its picture: the picture turned clockwise, cut, and then seen in a mirror, if at all. All that is placed on
 * the picture stays where it is in the picture, so that another frame moves nothing.
 */
export interface Frame {
  /** Quarter turns. */
  turns: 0 | 1 | 2 | 3;
  /** Turned besides, to straighten it: degrees. */
  degrees: number;
  /** Whether left and right are swapped. */
  mirrored: boolean;
  /** What is cut out; null for as much as there is in the picture's own proportions. */
  crop: Crop | null;
}

/** A rectangle on the picture, its sides those of the print. Units: long edges of the picture. */
export interface Crop {
  /** Its middle. */
  x: Length;
  y: Length;
  width: Length;
  height: Length;
}

export const MOST_DEGREES = 45;
/** Shorter sides mean nothing: of any picture there is it is less than a pixel. */
export const LEAST_SIDE = 1e-9;

/** The whole picture as it is. */
export const WHOLE_FRAME: Frame = { turns: 0, degrees: 0, mirrored: false, crop: null };

/** Whether a print is its picture, pixel for pixel. */
export function isWholeFrame({ turns, degrees, mirrored, crop }: Frame): boolean {
  return turns === 0 && degrees === 0 && !mirrored && crop === null;
}

/** Equal keys, equal frames. */
export function frameKey({ turns, degrees, mirrored, crop }: Frame): string {
  return JSON.stringify([turns, degrees, mirrored, crop && [crop.x, crop.y, crop.width, crop.height]]);
}

/** Which way the print's width runs on the picture before a mirror, as a direction: exact for quarter turns. */
function alongOf({ turns, degrees }: Pick<Frame, "turns" | "degrees">): XY {
  const radians = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  // The picture turned clockwise: the print's axes lie turned the other way on it.
  return [
    { x: cos, y: -sin },
    { x: -sin, y: -cos },
    { x: -cos, y: sin },
    { x: sin, y: cos },
  ][turns]!;
}

/**
 * The crop a frame cuts of a picture: as large as it is wanted, but inside the picture, moved and in the end made smaller until it is.
 *
 * Units   `picture` in any; the crop in its long edges.
 */
export function cropOf(frame: Frame, picture: Size): Crop {
  const long = Math.max(picture.width, picture.height);
  const [width, height] = [picture.width / long, picture.height / long];
  const along = alongOf(frame);
  const [cos, sin] = [Math.abs(along.x), Math.abs(along.y)];
  const isUpright = frame.turns % 2 === 1;
  const wanted = frame.crop ?? { x: width / 2, y: height / 2, width: isUpright ? height : width, height: isUpright ? width : height };
  const across = wanted.width * cos + wanted.height * sin;
  const down = wanted.width * sin + wanted.height * cos;
  const part = Math.min(1, width / across, height / down);
  return {
    x: between(wanted.x, (part * across) / 2, width - (part * across) / 2),
    y: between(wanted.y, (part * down) / 2, height - (part * down) / 2),
    width: part * wanted.width,
    height: part * wanted.height,
  };
}

/**
 * Where the points of a print lie in its picture: (u, v) is at (x + u · across.x + v · down.x, y + u · across.y + v · down.y).
 *
 * Units   pixels, of the print and of the picture, each from the upper left corner.
 */
export interface Placing extends Size {
  x: number;
  y: number;
  across: XY;
  down: XY;
}

/** Where a print lies in a picture of any size, to parts of a pixel. */
export function unroundedPlacing(frame: Frame, picture: Size): Placing {
  const long = Math.max(picture.width, picture.height);
  const crop = cropOf(frame, picture);
  return placedAround({ x: crop.x * long, y: crop.y * long }, { width: crop.width * long, height: crop.height * long }, frame);
}

/** A print of a size around a place of its picture, turned as its frame is. */
export function placedAround(middle: XY, { width, height }: Size, frame: Pick<Frame, "turns" | "degrees" | "mirrored">): Placing {
  const along = alongOf(frame);
  const mirror = frame.mirrored ? -1 : 1;
  const across = { x: mirror * along.x, y: mirror * along.y };
  const down = { x: -along.y, y: along.x };
  const x = middle.x - (width * across.x + height * down.x) / 2;
  return { width, height, x, y: middle.y - (width * across.y + height * down.y) / 2, across, down };
}

/** Where a print lies in its picture at full size. Not turned but by quarters, its pixels are pixels of the picture. */
export function placingOf(frame: Frame, picture: Size): Placing {
  const long = Math.max(picture.width, picture.height);
  const crop = cropOf(frame, picture);
  const isUpright = frame.turns % 2 === 1;
  const size = { width: Math.max(1, Math.round(crop.width * long)), height: Math.max(1, Math.round(crop.height * long)) };
  const middle = { x: crop.x * long, y: crop.y * long };
  if (frame.degrees === 0) {
    const [columns, rows] = isUpright ? [size.height, size.width] : [size.width, size.height];
    middle.x = onPixels(middle.x, columns, picture.width);
    middle.y = onPixels(middle.y, rows, picture.height);
  }
  return placedAround(middle, size, frame);
}

/** The middle of so many pixels that begin on a whole one, inside a picture. */
function onPixels(middle: number, count: number, whole: number): number {
  return between(Math.round(middle - count / 2), 0, whole - count) + count / 2;
}

/** The same with print and picture at other sizes. */
export function placingAt(full: Placing, picture: Size, pictureAt: Size, printAt: Size): Placing {
  const [byX, byY] = [pictureAt.width / picture.width, pictureAt.height / picture.height];
  const scaled = ({ x, y }: XY, by: number) => ({ x: x * by * byX, y: y * by * byY });
  return {
    ...printAt,
    x: full.x * byX,
    y: full.y * byY,
    across: scaled(full.across, full.width / printAt.width),
    down: scaled(full.down, full.height / printAt.height),
  };
}

/** The size of a print whose picture has another size than its full one. */
export function printSizeAt(full: Size, picture: Size, pictureAt: Size): Size {
  const by = Math.max(pictureAt.width, pictureAt.height) / Math.max(picture.width, picture.height);
  return { width: Math.max(1, Math.round(full.width * by)), height: Math.max(1, Math.round(full.height * by)) };
}

/**
 * Where a print lies on a picture brought to another size, the print brought down as far or to a size of its own; undefined where it is all
 * of it.
 */
export function printOn(frame: Frame, picture: Size, pictureAt: Size, printAt?: Size): Placing | undefined {
  if (isWholeFrame(frame)) return undefined;
  const full = placingOf(frame, picture);
  return placingAt(full, picture, pictureAt, printAt ?? printSizeAt(full, picture, pictureAt));
}

/** The size a picture has where its print has this one. */
export function pictureSizeAt(frame: Frame, picture: Size, print: Size): Size {
  if (frame.crop === null && frame.degrees === 0)
    return frame.turns % 2 === 0 ? { width: print.width, height: print.height } : { width: print.height, height: print.width };
  const full = placingOf(frame, picture);
  const by = Math.max(print.width, print.height) / Math.max(full.width, full.height);
  return { width: Math.max(1, Math.round(picture.width * by)), height: Math.max(1, Math.round(picture.height * by)) };
}

/**
 * A picture brought down, from the size it is there at, so that its print has about this long edge: the sizes of both, and where the print
 * lies on it.
 */
export function smallPrint(
  frame: Frame,
  picture: Size,
  there: Size,
  longEdge: number,
): { pictureAt: Size; print: Placing | undefined; size: Size } {
  const full = placingOf(frame, picture);
  const by = Math.max(picture.width, picture.height) / Math.max(full.width, full.height);
  const pictureAt = fitLongEdge(there, longEdge * by);
  const print = printOn(frame, picture, pictureAt);
  const { width, height } = print ?? pictureAt;
  return { pictureAt, print, size: { width, height } };
}

/** A rectangle of a picture's pixels as a print of their own. */
export function placedAsIs({ x, y, width, height }: XY & Size): Placing {
  return { x, y, width, height, across: { x: 1, y: 0 }, down: { x: 0, y: 1 } };
}

/** A rectangle of a print's pixels. */
export function partOfPlacing(placing: Placing, x: number, y: number, size: Size): Placing {
  return { ...placing, ...pictureAtPrint(placing, x, y), width: size.width, height: size.height };
}

/** The same on a picture of which what lies before a corner was left away. */
export function onPart(placing: Placing, corner: XY): Placing {
  return { ...placing, x: placing.x - corner.x, y: placing.y - corner.y };
}

/** A point of the print, in its picture. */
export function pictureAtPrint({ x, y, across, down }: Placing, u: number, v: number): XY {
  return { x: x + u * across.x + v * down.x, y: y + u * across.y + v * down.y };
}

/** A direction of the print, in its picture. */
export function pictureAlongPrint({ across, down }: Placing, du: number, dv: number): XY {
  return { x: du * across.x + dv * down.x, y: du * across.y + dv * down.y };
}

/** A point of the picture, in the print. */
export function printAtPicture({ x, y, across, down }: Placing, px: number, py: number): XY {
  const det = across.x * down.y - across.y * down.x;
  const [dx, dy] = [px - x, py - y];
  return { x: (dx * down.y - dy * down.x) / det, y: (dy * across.x - dx * across.y) / det };
}

/** The pixels of a picture that a print is made of: a rectangle, so many more to each side, inside the picture. */
export function pictureArea(placing: Placing, picture: Size, margin: number): { x: number; y: number } & Size {
  const { width, height } = placing;
  const corners = [pictureAtPrint(placing, 0, 0), pictureAtPrint(placing, width, 0), pictureAtPrint(placing, 0, height)];
  corners.push(pictureAtPrint(placing, width, height));
  const range = (values: number[], whole: number) => {
    const from = between(Math.floor(Math.min(...values) - margin + ROUNDING), 0, whole - 1);
    return [from, between(Math.ceil(Math.max(...values) + margin - ROUNDING), from + 1, whole) - from] as const;
  };
  const [x, columns] = range(
    corners.map((corner) => corner.x),
    picture.width,
  );
  const [y, rows] = range(
    corners.map((corner) => corner.y),
    picture.height,
  );
  return { x, y, width: columns, height: rows };
}

/** What places may be off by for all that they are on whole pixels. */
const ROUNDING = 1e-6;

/** Whether each pixel of a print is a pixel of its picture. */
export function isPixelForPixel({ x, y, across, down, width, height }: Placing): boolean {
  const isWhole = (value: number) => Math.abs(value - Math.round(value)) < ROUNDING;
  const steps = [across.x, across.y, down.x, down.y];
  // Steps that differ from one by little add up over the print.
  const most = ROUNDING / Math.max(width, height);
  return isWhole(x) && isWhole(y) && steps.every((step) => Math.abs(step - Math.round(step)) < most);
}

/**
 * For each row of a picture the columns whose middles lie in the print: `from[row]` up to `end[row]`.
 */
export function rowsInside(placing: Placing, { width, height }: Size): { from: Int32Array; end: Int32Array } {
  const [from, end] = [new Int32Array(height), new Int32Array(height)];
  const origin = printAtPicture(placing, 0, 0);
  const stepX = printAtPicture(placing, 1, 0);
  const stepY = printAtPicture(placing, 0, 1);
  const along = [
    { at: origin.x, x: stepX.x - origin.x, y: stepY.x - origin.x, length: placing.width },
    { at: origin.y, x: stepX.y - origin.y, y: stepY.y - origin.y, length: placing.height },
  ];
  for (let row = 0; row < height; row++) {
    let [least, most] = [0, width];
    for (const { at, x, y, length } of along) {
      const first = at + y * (row + 0.5) + x / 2;
      // 0 ≤ first + x · column < length, a place on the border itself counted in where it begins.
      if (Math.abs(x) < 1e-12) {
        if (first < -ROUNDING || first >= length - ROUNDING) most = 0;
        continue;
      }
      const [enters, leaves] = x > 0 ? [-first / x, (length - first) / x] : [(length - first) / x, -first / x];
      least = Math.max(least, Math.ceil(enters - ROUNDING));
      most = Math.min(most, Math.ceil(leaves - ROUNDING));
    }
    from[row] = Math.min(least, width);
    end[row] = Math.max(most, from[row]!);
  }
  return { from, end };
}

function between(value: number, least: number, most: number): number {
  return Math.max(Math.min(value, most), least);
}
