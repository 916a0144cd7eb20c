import { closeSync, openSync, writeSync } from "node:fs";
import { mkdir, readFile, rename, rm, stat, utimes, writeFile } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { apply3, IDENTITY3, transpose3, type Matrix3 } from "@/core/colour/matrix3";
import { P3_SPACE } from "@/core/colour/sourceSpace";
import { LUMINANCE_WEIGHTS, type Weights } from "@/core/mix/weights";
import type { Planes } from "@/core/kernels/reference";
import { pairTable } from "@/core/kernels/pairTable";
import { srgbEncode } from "@/core/colour/transferCurve";
import { fitLongEdge, rowsNeeded, type Size } from "@/core/spatial/areaReduce";
import { PREVIEW_LONG_EDGE, type PreparedPicture, type PreparedLevel } from "@/contracts/preparedPicture";
import { BandMachine } from "../bandMachine";
import { GrainReducer, unpackGrain } from "../grainMachine";
import { decodePicture, type PictureFacts } from "./decodePicture";
import { RawLevels, type RawLayout } from "./rawLevels";

/** A prepared picture on disk: what is sent to the page, with the file of each level. */
export interface PreparedFolder extends PreparedPicture {
  facts: PictureFacts;
  /** What of the camera's notes holds for prints too: an Exif block in base64. */
  exif: string | undefined;
  files: RawLayout[];
}

/** Another name whenever levels are laid out otherwise: folders of an older kind are made anew. */
const INDEX = "prepared-5.json";

/** The prepared picture in a folder, or undefined where it has not been prepared (or was cleared away). */
export async function readPrepared(folder: string): Promise<PreparedFolder | undefined> {
  try {
    const prepared = JSON.parse(await readFile(join(folder, INDEX), "utf8")) as PreparedFolder;
    const here = (file: string) => join(folder, basename(file));
    const files = prepared.files.map(({ file, grain, ...layout }) => ({ ...layout, file: here(file), grain: grain && here(grain) }));
    const now = new Date();
    await utimes(join(folder, INDEX), now, now); // used: not to be cleared away before those that were not
    await Promise.all(files.flatMap(({ file, grain }) => [file, grain ?? []].flat()).map((file) => stat(file)));
    return { ...prepared, files };
  } catch {
    return undefined;
  }
}

/**
 * Decodes a picture file and lays its levels out in `folder`: full size as stored, then halves down to
 * the preview, and the preview itself, area-averaged in linear light, with their grain. The folder appears only when whole.
 *
 * Errors  PictureError for a file that cannot be taken.
 */
export async function preparePicture(path: string, folder: string): Promise<PreparedFolder> {
  const unfinished = `${folder}.${process.pid}.${Math.random().toString(36).slice(2)}`;
  await mkdir(unfinished, { recursive: true });
  try {
    const decoded = await decodePicture(path, join(unfinished, "full"));
    const { facts, exif, ...full } = decoded;
    const files: RawLayout[] = [full];
    const scales = [1];
    let halved: RawLayout = full;
    for (let k = 1; longEdge(halved) > 2 * PREVIEW_LONG_EDGE; k++) {
      halved = reduceLevel(halved, fitLongEdge(full, longEdge(full) / 2 ** k), join(unfinished, `half-${k}.raw`));
      files.push(halved);
      scales.push(longEdge(halved) / longEdge(full));
    }
    if (longEdge(full) > PREVIEW_LONG_EDGE) {
      const preview = reduceLevel(halved, fitLongEdge(full, PREVIEW_LONG_EDGE), join(unfinished, "preview.raw"));
      files.push(preview);
      scales.push(longEdge(preview) / longEdge(full));
    }
    const levels = files.map(({ width, height, depth, space, grain }, i): PreparedLevel => ({
      width,
      height,
      depth,
      space,
      scale: scales[i]!,
      hasGrain: !!grain,
    }));
    const notes = exif && Buffer.from(exif).toString("base64");
    const prepared: PreparedFolder = { width: full.width, height: full.height, levels, facts, files, exif: notes };
    await writeFile(join(unfinished, INDEX), JSON.stringify(prepared));
    await mkdir(dirname(folder), { recursive: true });
    await rename(unfinished, folder).catch(async (error: NodeJS.ErrnoException) => {
      // Another process was quicker: its folder is as good.
      if (error.code !== "ENOTEMPTY" && error.code !== "EEXIST") throw error;
    });
    return (await readPrepared(folder)) ?? prepared;
  } finally {
    await rm(unfinished, { recursive: true, force: true });
  }
}

function longEdge({ width, height }: Size): number {
  return Math.max(width, height);
}

const ROWS_AT_A_TIME = 32;
const CHANNELS = ["red", "green", "blue"] as const;

/** Knots of the table from linear light to 16-bit levels: error below a level everywhere, black included. */
const ENCODE_KNOTS = 65536;
const ENCODE_16 = pairTable(ENCODE_KNOTS, (y) => 65535 * srgbEncode(y));

/** The picture no larger than a preview, in a file beside it where it has to be made. */
export function overviewOf(layout: RawLayout): RawLayout {
  const size = fitLongEdge(layout, PREVIEW_LONG_EDGE);
  return size.width === layout.width ? layout : reduceLevel(layout, size, `${layout.file}.overview`);
}

/**
 * Writes a smaller level of a picture: area means in linear light, stored at 16 bits with the source's own primaries, so that no
 * colour is clipped; and, in a file beside it, the grain of the light inside its pixels.
 */
function reduceLevel(source: RawLayout, size: Size, file: string): RawLayout {
  const raw = new RawLevels(source);
  const grainFile = `${file}.grain`;
  const out = openSync(file, "w");
  const grainOut = openSync(grainFile, "w");
  try {
    const decoder = new BandMachine(source.width, 1);
    decoder.setSpace({ ...source.space, toP3: IDENTITY3 }, source.depth);
    const encoder = new BandMachine(size.width, ENCODE_KNOTS);
    encoder.setOutputTable(ENCODE_16);
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
        CHANNELS.forEach((name, c) => {
          encoder.put("tone", colour[name], 0, size.width);
          interleave(encoder.grey16(), levels, 3 * at + c);
        });
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
  return { file, grain: grainFile, offset: 0, ...size, depth: 16, space: { ...source.space, curves: P3_SPACE.curves } };
}

/** Rows of a level as linear colour in its own primaries. */
function readColour(raw: RawLevels, decoder: BandMachine, first: number, end: number): Planes {
  const { width } = raw.layout;
  const plane = () => new Float32Array((end - first) * width);
  const colour = { red: plane(), green: plane(), blue: plane() };
  for (let row = first; row < end; row++) {
    decoder.decode(raw.read(0, row, width, 1));
    for (const name of CHANNELS) decoder.take(name, colour[name], (row - first) * width);
  }
  return colour;
}

/** How much each of a source's primaries gives to luminance. */
function lightIn(toP3: Matrix3): Weights {
  const { red, green, blue } = LUMINANCE_WEIGHTS;
  const [r, g, b] = apply3(transpose3(toP3), [red, green, blue]);
  return { red: r, green: g, blue: b };
}

function interleave(channel: Uint16Array, levels: Uint16Array, at: number): void {
  for (let i = 0; i < channel.length; i++) levels[at + 3 * i] = channel[i]!;
}
