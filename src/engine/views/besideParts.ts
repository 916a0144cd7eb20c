import { cleanedLevel, type PreparedLevel } from "@/contracts/preparedPicture";
import { holds, type Area } from "@/core/spots/area";
import type { Spot } from "@/core/spots/spot";
import type { LevelFetcher } from "../source/levelFetcher";
import type { Source } from "../source/source";
import { areasSeen } from "../source/spotted";

/** Areas are fetched in squares of so many pixels, so that a place that is dragged meets those that are there. */
const SQUARE = 128;

/** What a part of a picture needs from beside it to cover its spots. */
export class BesideParts {
  /** Given, or on their way. */
  #areas: Area[] = [];

  constructor(
    readonly part: Area,
    readonly level: { index: number } & PreparedLevel,
  ) {}

  /** What these spots need and nobody has asked for. */
  missing(spots: readonly Spot[]): Area[] {
    const squares: Area[] = [];
    for (const area of areasSeen(spots, this.level, this.part)) {
      const square = squareOf(area, this.level);
      if (![...this.#areas, ...squares].some((other) => holds(other, square))) squares.push(square);
    }
    return squares;
  }

  /** Fetches areas and gives them to the part. Errors: whatever the fetch throws; they are missing again then. */
  async fetch(
    areas: readonly Area[],
    source: Source,
    fetcher: LevelFetcher,
    cleaned: LevelFetcher | undefined,
    signal: AbortSignal,
  ): Promise<void> {
    this.#areas.push(...areas);
    const { index, space } = this.level;
    const read = async (area: Area) => {
      const [found, clean] = await Promise.all([
        fetcher.read({ level: index, ...area }, signal),
        cleaned?.read({ level: index, ...area }, signal),
      ]);
      return { area, found: { ...found, space }, cleaned: clean && { ...clean, space: cleanedLevel(this.level).space } };
    };
    try {
      source.giveBeside(await Promise.all(areas.map(read)));
    } catch (error) {
      this.#areas = this.#areas.filter((area) => !areas.includes(area));
      throw error;
    }
  }
}

function squareOf({ x, y, width, height }: Area, whole: { width: number; height: number }): Area {
  const [left, top] = [SQUARE * Math.floor(x / SQUARE), SQUARE * Math.floor(y / SQUARE)];
  const right = Math.min(SQUARE * Math.ceil((x + width) / SQUARE), whole.width);
  const bottom = Math.min(SQUARE * Math.ceil((y + height) / SQUARE), whole.height);
  return { x: left, y: top, width: right - left, height: bottom - top };
}
