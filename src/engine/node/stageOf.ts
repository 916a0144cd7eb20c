import { Stage } from "../stage";
import { RawLevels, type RawLayout } from "./rawLevels";

/** A whole level with its grain, ready to be rendered. */
export function stageOf(level: RawLayout): Stage {
  const raw = new RawLevels(level);
  try {
    const grain = raw.readGrain(0, 0, level.width, level.height);
    return Stage.fromLevels(raw.read(0, 0, level.width, level.height), level, level.space, { grain });
  } finally {
    raw.close();
  }
}
