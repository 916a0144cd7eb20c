import type { Area } from "@/core/spots/area";
import type { Mending, Pixels } from "@/core/spots/mend";
import type { Spot } from "@/core/spots/spot";
import { decodeLevels } from "../source/decoded";
import { areasOf, Spotted } from "../source/spotted";
import { RawLevels, type RawLayout } from "./rawLevels";

/** What the spots of a full level are covered with, in order; reads no more of it than they look at. */
export function mendLevel(level: RawLayout, spots: readonly Spot[]): readonly Mending[] {
  if (spots.length === 0) return [];
  const spotted = new Spotted(readAreas(level, areasOf(spots, level)), level);
  spotted.heal(spots);
  return spotted.mendings;
}

/** Pixels in a row of those that are decoded. */
const AT_ONCE = 4096;

/** Areas of a level, decoded together: one by one, what a decoder needs would cost more than they do. */
function readAreas(level: RawLayout, areas: readonly Area[]): Pixels[] {
  const raw = new RawLevels(level);
  try {
    const pixels = areas.reduce((sum, { width, height }) => sum + width * height, 0);
    const size = { width: AT_ONCE, height: Math.ceil(pixels / AT_ONCE) };
    const levels = new (level.depth === 8 ? Uint8Array : Uint16Array)(3 * size.width * size.height);
    let end = 0;
    for (const { x, y, width, height } of areas) {
      levels.set(raw.read(x, y, width, height), 3 * end);
      end += width * height;
    }
    const { red, green, blue } = decodeLevels({ levels, space: level.space }, size).colour;
    end = 0;
    return areas.map((area) => {
      const part = (plane: Float32Array) => plane.subarray(end - area.width * area.height, end);
      end += area.width * area.height;
      return { area, colour: { red: part(red), green: part(green), blue: part(blue) }, grain: undefined };
    });
  } finally {
    raw.close();
  }
}
