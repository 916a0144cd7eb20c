import type { Mending } from "@/core/spots/mend";
import type { Spot } from "@/core/spots/spot";
import { decodeLevels } from "../decoded";
import { areasOf, Spotted } from "../spotted";
import { RawLevels, type RawLayout } from "./rawLevels";

/** What the spots of a level are covered with, in order; reads no more of it than they look at. */
export function mendLevel(level: RawLayout, spots: readonly Spot[]): readonly Mending[] {
  if (spots.length === 0) return [];
  const raw = new RawLevels(level);
  try {
    const areas = areasOf(spots, level).map((area) => {
      const { x, y, width, height } = area;
      const levels = raw.read(x, y, width, height);
      return { area, ...decodeLevels({ levels, space: level.space, grain: raw.readGrain(x, y, width, height) }, area) };
    });
    const spotted = new Spotted(areas, level);
    spotted.heal(spots);
    return spotted.mendings;
  } finally {
    raw.close();
  }
}
