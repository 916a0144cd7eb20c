import { closeSync, openSync, writeSync } from "node:fs";
import { IDENTITY3 } from "@/core/colour/matrix3";
import { P3_SPACE } from "@/core/colour/sourceSpace";
import { srgbEncode } from "@/core/colour/transferCurve";
import { pairTable } from "@/core/kernels/pairTable";
import { emptyPlanes, type Planes } from "@/core/kernels/planes";
import { CHANNELS, lightIn } from "@/core/mix/weights";
import { rowsNeeded, type Size } from "@/core/spatial/areaReduce";
import { BandMachine } from "../machine/bandMachine";
import { GrainReducer, unpackGrain } from "../machine/grainMachine";
import { RawLevels, type RawLayout } from "./rawLevels";

const ROWS_AT_A_TIME = 32;

/** Knots of the table from linear light to 16-bit levels: error below a level everywhere, black included. */
const ENCODE_KNOTS = 65536;
let encode16: Float32Array | undefined;

/** A level at 16 bits with the same primaries, so that no colour is clipped. */
export function levelLike({ space }: RawLayout, size: Size, file: string, grain?: string): RawLayout {
  return { file, grain, offset: 0, ...size, depth: 16, space: { ...space, curves: P3_SPACE.curves } };
}

/** Encodes rows of linear colour, so many pixels wide, as levels that follow one another. */
export function levelEncoder(width: number): (colour: Planes, from: number, levels: Uint16Array, pixel: number) => void {
  const encoder = new BandMachine(width, ENCODE_KNOTS);
  encoder.output.setTable((encode16 ??= pairTable(ENCODE_KNOTS, (y) => 65535 * srgbEncode(y))));
  return (colour, from, levels, pixel) => {
    CHANNELS.forEach((name, c) => {
      encoder.put("tone", colour[name], from, from + width);
      interleave(encoder.output.grey16(), levels, 3 * pixel + c);
    });
  };
}

/**
 * Writes a smaller level of a picture: area means in linear light; and, in a file beside it, the grain of the light inside its pixels.
 */
export function reduceLevel(source: RawLayout, size: Size, file: string): RawLayout {
  const raw = new RawLevels(source);
  const grainFile = `${file}.grain`;
  const out = openSync(file, "w");
  const grainOut = openSync(grainFile, "w");
  try {
    const decoder = colourDecoder(source);
    const encode = levelEncoder(size.width);
    const reducer = new GrainReducer(source, size, lightIn(source.space.toP3));
    const levels = new Uint16Array(3 * ROWS_AT_A_TIME * size.width);
    const grain = new Uint32Array(ROWS_AT_A_TIME * size.width);
    for (let y = 0; y < size.height; y += ROWS_AT_A_TIME) {
      const to = Math.min(y + ROWS_AT_A_TIME, size.height);
      const { first, end } = rowsNeeded(source, size, y, to);
      const colour = readColour(raw, decoder, first, end);
      const words = raw.readGrain(0, first, source.width, end - first);
      reducer.forRows(colour, words && unpackGrain(colour, words), first, y, to, (row, { colour, packed }) => {
        const at = (row - y) * size.width;
        encode(colour, 0, levels, at);
        grain.set(packed, at);
      });
      writeSync(out, levels, 0, 6 * (to - y) * size.width);
      writeSync(grainOut, grain, 0, 4 * (to - y) * size.width);
    }
  } finally {
    closeSync(out);
    closeSync(grainOut);
    raw.close();
  }
  return levelLike(source, size, file, grainFile);
}

/** Decodes rows of a level to linear colour in its own primaries. */
export function colourDecoder({ width, space, depth }: RawLayout): BandMachine {
  const decoder = new BandMachine(width, 1);
  decoder.setSpace({ ...space, toP3: IDENTITY3 }, depth);
  return decoder;
}

/** Rows of a level as linear colour in its own primaries, in planes of their own or in those given, which are large enough. */
export function readColour(raw: RawLevels, decoder: BandMachine, first: number, end: number, into?: Planes): Planes {
  const { width } = raw.layout;
  const colour = into ?? emptyPlanes((end - first) * width);
  for (let row = first; row < end; row++) {
    decoder.decode(raw.read(0, row, width, 1));
    for (const name of CHANNELS) decoder.take(name, colour[name], (row - first) * width);
  }
  return colour;
}

function interleave(channel: Uint16Array, levels: Uint16Array, at: number): void {
  for (let i = 0; i < channel.length; i++) levels[at + 3 * i] = channel[i]!;
}
