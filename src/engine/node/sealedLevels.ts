import { basename, join } from "node:path";
import type { RawLayout } from "./rawLevels";
import { flushedSeal, isWhole, readSealed, sealOf, writeSealed, type Seal } from "./sealed";

// Levels in a folder of the cache, with an index that says what they are and carries the seal of each.

interface Levels {
  files: RawLayout[];
}

type Index<T> = T & { seals: Record<string, Seal> };

const filesOf = ({ files }: Levels) => files.flatMap(({ file, grain }) => (grain === undefined ? [file] : [file, grain]));

/** Writes the index of levels that lie in a folder. */
export async function writeSealedLevels<T extends Levels>(folder: string, index: string, levels: T): Promise<void> {
  const seals = Object.fromEntries(filesOf(levels).map((file) => [basename(file), flushedSeal(file)]));
  await writeSealed(join(folder, index), Buffer.from(JSON.stringify({ ...levels, seals } satisfies Index<T>)));
}

/** The levels of a folder, wherever it lies now; undefined where they are not there, or one is not whole. */
export async function readSealedLevels<T extends Levels>(folder: string, index: string): Promise<T | undefined> {
  const found = await readIndex<T>(folder, index);
  if (!found) return undefined;
  const { seals, ...levels } = found;
  const whole = await Promise.all(filesOf(levels).map((file) => isWhole(file, seals[basename(file)])));
  return whole.every(Boolean) ? (levels as unknown as T) : undefined;
}

/** Names of files that are not as they were written, the index itself among them. */
export async function damagedLevels(folder: string, index: string): Promise<string[]> {
  const found = await readIndex<Levels>(folder, index);
  if (!found) return [index];
  return Object.entries(found.seals).flatMap(([name, seal]) => (agrees(join(folder, name), seal) ? [] : [name]));
}

function agrees(file: string, seal: Seal): boolean {
  try {
    const { bytes, crc32 } = sealOf(file);
    return bytes === seal.bytes && crc32 === seal.crc32;
  } catch {
    return false;
  }
}

async function readIndex<T extends Levels>(folder: string, index: string): Promise<Index<T> | undefined> {
  const text = await readSealed(join(folder, index));
  if (!text) return undefined;
  const found = JSON.parse(text.toString()) as Index<T>;
  const here = (file: string) => join(folder, basename(file));
  return { ...found, files: found.files.map((level) => ({ ...level, file: here(level.file), grain: level.grain && here(level.grain) })) };
}
