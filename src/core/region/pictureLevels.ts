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

let last: { text: string; levels: Float32Array } | undefined;

/** An imported picture's levels, 0–1. Those asked for last are kept: bands ask again and again. */
export function pictureLevels({ levels: text }: Pick<PictureShape, "levels">): Float32Array {
  if (last?.text !== text) last = { text, levels: Float32Array.from(atob(text), (char) => char.charCodeAt(0) / 255) };
  return last.levels;
}
