import { closeSync, openSync, writeSync } from "node:fs";
import { mkdir, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { CLEAN_APRON, ColourCleaner } from "@/core/clean/cleanColour";
import { ColourNoiseMeter, NOISE_BLOCK, type ColourNoise } from "@/core/clean/colourNoise";
import type { BandMachine } from "../machine/bandMachine";
import { smallerLevels } from "./smallerLevels";
import { RawLevels, type RawLayout } from "./rawLevels";
import { nameFolder } from "./sealed";
import { damagedLevels, readSealedLevels, writeSealedLevels } from "./sealedLevels";
import { colourDecoder, levelEncoder, levelLike, readColour } from "./reduceLevel";

/** Another name whenever colour is cleaned otherwise: what was made before is made anew. */
const FOLDER = "clean-3";
const INDEX = "levels.json";

/** The cleaned levels of a prepared picture, full size first, or undefined where they have not been made, or are not whole. */
export async function readCleaned(folder: string): Promise<RawLayout[] | undefined> {
  return (await readSealedLevels(join(folder, FOLDER), INDEX))?.files;
}

/** Names of its files that are not as they were written; none where it has none. */
export async function damagedCleaned(folder: string): Promise<string[]> {
  const there = await stat(join(folder, FOLDER)).catch(() => undefined);
  return there ? damagedLevels(join(folder, FOLDER), INDEX) : [];
}

/**
 * The cleaned levels of a picture whose full level is given, made in its folder where they are not there: as many as the picture has, of
 * the same sizes.
 */
export async function cleanPicture(folder: string, full: RawLayout): Promise<RawLayout[]> {
  const there = await readCleaned(folder);
  if (there) return there;
  const unfinished = join(folder, `${FOLDER}.${process.pid}.${Math.random().toString(36).slice(2)}`);
  await mkdir(unfinished, { recursive: true });
  try {
    const cleaned = cleanLevel(full, join(unfinished, "full.raw"));
    const files = [cleaned, ...smallerLevels(cleaned, unfinished)];
    await writeSealedLevels(unfinished, INDEX, { files });
    await rm(join(folder, FOLDER), { recursive: true, force: true });
    await nameFolder(unfinished, join(folder, FOLDER)).catch(async (error: NodeJS.ErrnoException) => {
      // Another process was quicker: its levels are as good.
      if (error.code !== "ENOTEMPTY" && error.code !== "EEXIST") throw error;
    });
    return (await readCleaned(folder)) ?? files;
  } finally {
    await rm(unfinished, { recursive: true, force: true });
  }
}

/** Pixels that are cleaned at a time, unless a few rows are more: 110 MB. */
const PIXELS_AT_A_TIME = 2e6;

/** Pixels that noise is measured in, about: strips from top to bottom. */
const MEASURED_PIXELS = 2e6;

/** How much of a level's colour is noise. */
function noiseOf(raw: RawLevels, decoder: BandMachine): ColourNoise {
  const { width, height, space } = raw.layout;
  const meter = new ColourNoiseMeter(width, space.toP3);
  const most = Math.floor(height / NOISE_BLOCK);
  const strips = Math.min(most, Math.max(Math.round(MEASURED_PIXELS / (width * NOISE_BLOCK)), 1));
  for (let k = 0; k < strips; k++) {
    const y = NOISE_BLOCK * Math.floor((k + 0.5) * (most / strips));
    meter.add(readColour(raw, decoder, y, y + NOISE_BLOCK));
  }
  return meter.measured();
}

/** Writes a level with its colours cleaned, in its own primaries. */
export function cleanLevel(source: RawLayout, file: string): RawLayout {
  const { width, height } = source;
  const raw = new RawLevels(source);
  const out = openSync(file, "w");
  try {
    const band = 2 * Math.ceil(Math.max(PIXELS_AT_A_TIME / width - 2 * CLEAN_APRON, CLEAN_APRON) / 2);
    const decoder = colourDecoder(source);
    const cleaner = new ColourCleaner(width, Math.min(band + 2 * CLEAN_APRON, height), source.space.toP3, noiseOf(raw, decoder));
    const encode = levelEncoder(width);
    const levels = new Uint16Array(3 * band * width);
    for (let y = 0; y < height; y += band) {
      const to = Math.min(y + band, height);
      const [first, end] = [Math.max(y - CLEAN_APRON, 0), Math.min(to + CLEAN_APRON, height)];
      cleaner.clean(
        end - first,
        (row, into) => void readColour(raw, decoder, first + row, first + row + 1, into),
        y - first,
        to - first,
        (row, colour) => encode(colour, 0, levels, (first + row - y) * width),
      );
      writeSync(out, levels, 0, 6 * (to - y) * width);
    }
  } finally {
    closeSync(out);
    raw.close();
  }
  return levelLike(source, { width, height }, file);
}
