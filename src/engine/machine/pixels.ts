import type { Size } from "@/core/spatial/areaReduce";
import type { BandMachine } from "./bandMachine";
import { CHROMA_PLANES } from "./chromaBand";
import type { PrintRows } from "./printRows";
import type { OutputSpace } from "@/core/colour/printColour";

// How what a machine holds becomes pixels: opaque, 4 bytes each.

/** How tones are turned into pixels. */
export interface Looks {
  /** Levels 0–255 over tone, or over linear light when `of` is the colour. */
  table: Float32Array;
  dithered: boolean;
  /** Whether levels change smoothly with tones, so that they may be read through a table of other knots. */
  isSmooth?: boolean | undefined;
  /** The space in whose channels colour laid on a print's tones is shown with them; absent where tones alone are. */
  coloured?: OutputSpace | undefined;
  /** How far it is shown, over tone 0–1; absent where it is everywhere. */
  colourShare?: Float32Array | undefined;
}

/** Takes a band of a print: its first pixel, the one past its last, its first row, its rows. */
export type TakeBand = (first: number, end: number, y: number, rows: number) => void;

/** Room for pixels, in a buffer where it fits. Filled as plain bytes: setting a clamped array from a plain one goes value by value. */
export function pixelsIn(buffer: ArrayBuffer | undefined, pixels: number): Uint8Array<ArrayBuffer> {
  return new Uint8Array(buffer?.byteLength === 4 * pixels ? buffer : new ArrayBuffer(4 * pixels));
}

/** Turns the tones in a machine, and the colour on them where it is seen, into pixels of rows `width` wide, from a pixel on. */
export function showBand(
  machine: BandMachine,
  rgba: Uint8Array,
  { first, width, y }: { first: number; width: number; y: number },
  { dithered, colourShare }: Looks,
  isColoured: boolean,
): void {
  if (isColoured && colourShare) machine.limitChroma(colourShare);
  const { output } = machine;
  rgba.set(isColoured ? output.printRgba(width, y, dithered) : output.greyRgba(width, y, dithered), 4 * first);
}

/** Turns whole planes of a print into pixels. */
export function showRows(machine: BandMachine, rgba: Uint8Array, print: Size, { tone, chroma }: PrintRows, looks: Looks): void {
  forBandsOf(machine, print, (first, end, y) => {
    machine.put("tone", tone, first, end);
    if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name], first, end);
    showBand(machine, rgba, { first, width: print.width, y }, looks, chroma !== undefined);
  });
}

/** Goes over a print in bands that fit in a machine. */
export function forBandsOf({ capacity }: BandMachine, { width, height }: Size, work: TakeBand): void {
  const rowsInBand = Math.floor(capacity / width);
  for (let y = 0; y < height; y += rowsInBand) {
    const rows = Math.min(rowsInBand, height - y);
    work(y * width, (y + rows) * width, y, rows);
  }
}
