import type { StoredLevels } from "../source/decoded";
import { Stage } from "../stage/stage";
import { RawLevels, type RawLayout } from "./rawLevels";

/** A whole level with its grain, ready to be rendered; with its cleaned colour, where a plan reads it. */
export function stageOf(level: RawLayout, cleaned?: RawLayout): Stage {
  const { levels, space, grain } = storedLevels(level);
  const stage = Stage.fromLevels(levels, level, space, { grain });
  if (cleaned) stage.source.giveCleaned(storedLevels(cleaned));
  return stage;
}

/** The same for what needs no grain: it is not read. */
export function plainStageOf(level: RawLayout, cleaned?: RawLayout): Stage {
  return stageOf({ ...level, grain: undefined }, cleaned && { ...cleaned, grain: undefined });
}

/** A level as it is stored, with its grain. */
export function storedLevels(level: RawLayout): StoredLevels {
  const { width, height, space } = level;
  const raw = new RawLevels(level);
  try {
    return { levels: raw.read(0, 0, width, height), space, grain: raw.readGrain(0, 0, width, height) };
  } finally {
    raw.close();
  }
}
