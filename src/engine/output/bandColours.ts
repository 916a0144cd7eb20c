import type { Planes } from "@/core/kernels/planes";
import { CoreError } from "@/core/errors";
import { CHANNELS } from "@/core/mix/weights";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import { meet } from "@/core/spots/area";
import { lay, type Mending } from "@/core/spots/mend";
import { BandMachine, type PlaneName } from "../machine/bandMachine";
import { betweenPlanes } from "../source/decoded";
import type { MaskPicture } from "../masks/maskPlane";

/** A picture on disk, by rows. */
export interface StoredRows {
  depth: 8 | 16;
  space: SourceSpace;
  /** Gives rows y up to y + height as interleaved RGB levels. */
  readRows(y: number, height: number): Uint8Array | Uint16Array;
  /** What its spots are covered with, in order. */
  mendings?: readonly Mending[] | undefined;
}

/** What masks see of a band, as far as it was wished. */
export interface SeenBand {
  /** Its colours, as they are mixed where nothing changes them before. */
  colour: Planes | undefined;
  /** The tone of the luminance as found. */
  plain: Float32Array | undefined;
  /** Where its hues can be looked for. */
  machine: BandMachine;
}

/**
 * Brings bands of a picture into a machine, in the colours a plan reads: as found, cleaned, or between; and tells what masks see of them,
 * as far as it is wished. What nobody asks for is not read.
 *
 * Errors  CoreError `bad_plan` where cleaned colour is read and none was given.
 */
export function bandColours(
  machine: BandMachine,
  source: StoredRows & { cleaned?: StoredRows | undefined },
  width: number,
  clean: number,
  wished: { colour: boolean; plain: boolean },
): (y: number, rows: number) => SeenBand {
  const { cleaned } = source;
  if (clean > 0 && !cleaned) throw new CoreError("bad_plan", "the plan reads cleaned colour, and none was given");
  const other = clean > 0 ? new BandMachine(machine.capacity, 1) : undefined;
  const load = (into: BandMachine, stored: StoredRows, y: number, rows: number) => {
    into.decode(stored.readRows(y, rows));
    layMendings(into, stored.mendings, y, rows, width);
  };
  const plainIn = (from: BandMachine, pixels: number) => {
    if (!wished.plain) return undefined;
    from.plainTone();
    return taken(from, "tone", pixels);
  };
  const seen = (plain: Float32Array | undefined, pixels: number): SeenBand => ({
    colour: wished.colour ? takenColour(machine, pixels) : undefined,
    plain,
    machine,
  });
  if (!other || !cleaned) {
    machine.setSpace(source.space, source.depth);
    return (y, rows) => {
      load(machine, source, y, rows);
      return seen(plainIn(machine, rows * width), rows * width);
    };
  }
  // The other one decodes what was found, so that what is mixed is decoded where it is mixed.
  other.setSpace(source.space, source.depth);
  machine.setSpace(cleaned.space, cleaned.depth);
  return (y, rows) => {
    const pixels = rows * width;
    if (clean < 1 || wished.plain) load(other, source, y, rows);
    const plain = plainIn(other, pixels);
    load(machine, cleaned, y, rows);
    if (clean < 1) putColour(machine, betweenPlanes(takenColour(other, pixels), takenColour(machine, pixels), clean));
    return seen(plain, pixels);
  };
}

/** What masks see of a band: its colours, and tones; hues are looked for once, where they are asked for. */
export function maskPicture({ colour, machine }: SeenBand, tones: Float32Array): MaskPicture {
  let hues: ReturnType<MaskPicture["hues"]> | undefined;
  return {
    ...colour!,
    mixed: () => tones,
    hues() {
      if (!hues) {
        putColour(machine, colour!);
        machine.findHues();
        hues = { hue: taken(machine, "hue", tones.length), fade: taken(machine, "fade", tones.length) };
      }
      return hues;
    },
  };
}

/** Covers spots of the rows in a machine. */
function layMendings(machine: BandMachine, mendings: readonly Mending[] = [], y: number, height: number, width: number): void {
  const area = { x: 0, y, width, height };
  const here = mendings.filter((mending) => meet(mending.area, area));
  if (here.length === 0) return;
  const colour = takenColour(machine, width * height);
  for (const mending of here) lay(mending, { area, colour, grain: undefined });
  putColour(machine, colour);
}

/** A plane of the band in a machine. */
export function taken(machine: BandMachine, name: PlaneName, pixels: number): Float32Array {
  const plane = new Float32Array(pixels);
  machine.take(name, plane, 0);
  return plane;
}

/** The colours of the band in a machine. */
export function takenColour(machine: BandMachine, pixels: number): Planes {
  return { red: taken(machine, "red", pixels), green: taken(machine, "green", pixels), blue: taken(machine, "blue", pixels) };
}

/** Puts the colours of a band into a machine. */
export function putColour(machine: BandMachine, colour: Planes): void {
  for (const name of CHANNELS) machine.put(name, colour[name], 0, colour.red.length);
}
