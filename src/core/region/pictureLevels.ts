import type { ToneBase } from "../spatial/toneBase";
import type { PictureShape } from "./region";

/** Levels of 0–255 as text. */
export function packLevels(levels: Uint8Array): string {
  let text = "";
  for (let i = 0; i < levels.length; i += 8192) text += String.fromCharCode(...levels.subarray(i, i + 8192));
  return btoa(text);
}

/** Whether a text holds a level for each pixel of a picture. */
export function holdsLevels({ width, height, levels }: Pick<PictureShape, "width" | "height" | "levels">): boolean {
  try {
    return atob(levels).length === width * height;
  } catch {
    return false;
  }
}

let last: { levels: string; base: ToneBase } | undefined;

/** An imported picture as a small plane to be laid over the whole. The one asked for last is kept: bands ask again and again. */
export function pictureBase({ width, height, levels }: PictureShape): ToneBase {
  if (last?.levels === levels && last.base.width === width) return last.base;
  const text = atob(levels);
  const offset = new Float32Array(width * height);
  for (let i = 0; i < offset.length; i++) offset[i] = text.charCodeAt(i) / 255;
  const base = { width, height, slope: undefined, offset };
  last = { levels, base };
  return base;
}
