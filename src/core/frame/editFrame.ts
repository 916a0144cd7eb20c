import type { Point } from "../region/region";
import type { Size } from "../spatial/areaReduce";
import { cropOf, MOST_DEGREES, pictureAtPrint, placedAround, type Crop, type Frame } from "./frame";

/** A hand cuts no shorter side than this, proportions apart. */
const LEAST_CUT = 0.01;

// What a hand does to a frame. Units: long edges of the picture; "seen" is on the print, mirror and all.

/** Which sides of a crop are held: −1 left or above, 1 right or below, 0 neither. */
export interface CropSides {
  across: -1 | 0 | 1;
  down: -1 | 0 | 1;
}

/** Turned a quarter, clockwise as it is seen or the other way; what was cut out stays cut out. */
export function turnedFrame(frame: Frame, isClockwise: boolean): Frame {
  const by = isClockwise !== frame.mirrored ? 1 : 3;
  const turns = ((frame.turns + by) % 4) as Frame["turns"];
  const { crop } = frame;
  return { ...frame, turns, crop: crop && { ...crop, width: crop.height, height: crop.width } };
}

/** How far a print is straightened, clockwise as it is seen: degrees. */
export function seenDegrees({ degrees, mirrored }: Frame): number {
  return mirrored ? -degrees || 0 : degrees;
}

/** The same, set: bounded by how far a frame is straightened. */
export function withSeenDegrees(frame: Frame, seen: number): Frame {
  const bounded = Math.min(Math.max(seen, -MOST_DEGREES), MOST_DEGREES);
  return { ...frame, degrees: frame.mirrored ? -bounded || 0 : bounded };
}

/**
 * Turned so that a line on the picture is level or upright on the print, whichever is nearer. Undefined where the line is too short to
 * tell.
 */
export function levelledFrame(frame: Frame, from: Point, to: Point): Frame | undefined {
  const [x, y] = [to.x - from.x, to.y - from.y];
  if (Math.hypot(x, y) < LEAST_LINE) return undefined;
  const lies = (Math.atan2(y, x) * 180) / Math.PI + frame.degrees;
  const off = lies - 90 * Math.round(lies / 90);
  const degrees = frame.degrees - off;
  // Further than a frame is straightened by, the line must be nearer to a quarter turn on.
  const turned = degrees > MOST_DEGREES ? 1 : degrees < -MOST_DEGREES ? 3 : 0;
  const turns = ((frame.turns + turned) % 4) as Frame["turns"];
  return { ...frame, turns, degrees: degrees - (turned === 1 ? 90 : turned === 3 ? -90 : 0) };
}
const LEAST_LINE = 0.01;

/**
 * Cut to proportions, width over height, around the middle of what is cut out and as long as what was wanted, whether the picture holds
 * that or not: laid the other way and back, it is what it was.
 */
export function withRatio(frame: Frame, picture: Size, ratio: number): Frame {
  const { x, y, width, height } = frame.crop ?? cropOf(frame, picture);
  const long = Math.max(width, height, LEAST_CUT);
  return { ...frame, crop: { x, y, ...(ratio > 1 ? { width: long, height: long / ratio } : { width: long * ratio, height: long }) } };
}

/**
 * A crop with its middle brought to a place of the picture, as far as the picture goes, along its borders where it is pushed against one.
 */
export function movedCrop(frame: Frame, picture: Size, to: Point): Crop {
  return cropOf({ ...frame, crop: { ...cropOf(frame, picture), x: to.x, y: to.y } }, picture);
}

/**
 * A crop one side or corner of which is brought to a place of the picture, the one across from it staying where it is; in proportions where
 * they are kept. As far as the picture goes, and never smaller than a crop may be.
 */
export function resizedCrop(frame: Frame, picture: Size, sides: CropSides, to: Point, ratio: number | undefined): Crop {
  const crop = cropOf(frame, picture);
  const placing = placedAround(crop, crop, frame);
  const { across, down } = placing;
  const from = { x: to.x - crop.x, y: to.y - crop.y };
  // How far out it is brought from the middle, along the print's own sides, and what stays on the other side.
  const out = { x: from.x * across.x + from.y * across.y, y: from.x * down.x + from.y * down.y };
  const side = (held: number, length: number, reach: number) => (held === 0 ? length : Math.max(length / 2 + held * reach, LEAST_CUT));
  let [width, height] = [side(sides.across, crop.width, out.x), side(sides.down, crop.height, out.y)];
  if (ratio !== undefined) {
    // A corner goes by the side that was brought out further; a side takes the other with it.
    const byWidth = sides.down === 0 || (sides.across !== 0 && width / ratio > height);
    if (byWidth) height = width / ratio;
    else width = height * ratio;
  }
  const reached = (part: number): Crop => {
    const size = { width: crop.width + part * (width - crop.width), height: crop.height + part * (height - crop.height) };
    // The corner, or the middle of the side, across from the one held stays.
    const u = crop.width / 2 + (sides.across * (size.width - crop.width)) / 2;
    const v = crop.height / 2 + (sides.down * (size.height - crop.height)) / 2;
    return { ...pictureAtPrint(placing, u, v), ...size };
  };
  return reached(furthestInside(reached, frame, picture));
}

const HALVINGS = 40;

/** How far a crop goes, 0–1, until it leaves the picture. */
function furthestInside(reached: (part: number) => Crop, frame: Frame, picture: Size): number {
  if (isInside(reached(1), frame, picture)) return 1;
  let [inside, outside] = [0, 1];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (inside + outside) / 2;
    if (isInside(reached(middle), frame, picture)) inside = middle;
    else outside = middle;
  }
  return inside;
}

function isInside(crop: Crop, frame: Frame, picture: Size): boolean {
  const long = Math.max(picture.width, picture.height);
  const placing = placedAround(crop, crop, frame);
  return [0, crop.width].every((u) =>
    [0, crop.height].every((v) => {
      const { x, y } = pictureAtPrint(placing, u, v);
      return x >= -SLACK && y >= -SLACK && x <= picture.width / long + SLACK && y <= picture.height / long + SLACK;
    }),
  );
}
const SLACK = 1e-9;
