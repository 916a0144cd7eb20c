import type { PreparedLevel } from "@/contracts/preparedPicture";

/** A rectangle of one level, in that level's pixels. */
export interface LevelArea {
  level: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Edge of the squares a level is fetched in, in pixels. */
const TILE = 512;
/** Squares kept: 64 of 16-bit RGB are 100 MB. */
const MOST_TILES = 64;

export type Levels = Uint8Array<ArrayBuffer> | Uint16Array<ArrayBuffer>;
type Square = Levels | Uint32Array<ArrayBuffer>;
export type FetchArea = (area: LevelArea, of: LevelOf, signal: AbortSignal) => Promise<ArrayBuffer>;
type LevelOf = "levels" | "grain";

/** Fetches parts of a picture's levels, and of their grain, square by square, keeping the ones used last. */
export class LevelFetcher {
  readonly #tiles = new Map<string, Square>();

  constructor(
    readonly levels: readonly PreparedLevel[],
    readonly fetchArea: FetchArea,
  ) {}

  /** The levels of an area, row after row, and its packed grain where it has any. Errors: whatever the fetch throws; AbortError. */
  async read(area: LevelArea, signal: AbortSignal): Promise<{ levels: Levels; grain: Uint32Array | undefined }> {
    const { depth, hasGrain } = this.levels[area.level]!;
    const pixels = area.width * area.height;
    const levels = depth === 8 ? new Uint8Array(3 * pixels) : new Uint16Array(3 * pixels);
    const grain = hasGrain ? new Uint32Array(pixels) : undefined;
    await Promise.all([this.#readInto(levels, area, "levels", signal), grain && this.#readInto(grain, area, "grain", signal)]);
    return { levels, grain };
  }

  async #readInto(out: Square, area: LevelArea, of: LevelOf, signal: AbortSignal): Promise<void> {
    const level = this.levels[area.level]!;
    const columns = range(Math.floor(area.x / TILE), Math.floor((area.x + area.width - 1) / TILE));
    const rows = range(Math.floor(area.y / TILE), Math.floor((area.y + area.height - 1) / TILE));
    const places = rows.flatMap((row) => columns.map((column) => ({ row, column })));
    await Promise.all(
      places.map(async ({ row, column }) => {
        const tile = tileArea(area.level, level, column, row);
        copyOverlap(await this.#tile(tile, of, signal), tile, out, area, of === "grain" ? 1 : 3);
      }),
    );
  }

  async #tile(tile: LevelArea, of: LevelOf, signal: AbortSignal): Promise<Square> {
    const key = `${of} ${tile.level} ${tile.x} ${tile.y}`;
    let levels = this.#tiles.get(key);
    if (levels) {
      this.#tiles.delete(key); // to the end of the line
    } else {
      const bytes = await this.fetchArea(tile, of, signal);
      if (of === "grain") levels = new Uint32Array(bytes);
      else levels = this.levels[tile.level]!.depth === 8 ? new Uint8Array(bytes) : new Uint16Array(bytes);
    }
    this.#tiles.set(key, levels);
    for (const oldest of this.#tiles.keys()) {
      if (this.#tiles.size <= MOST_TILES) break;
      this.#tiles.delete(oldest);
    }
    return levels;
  }
}

function tileArea(index: number, level: PreparedLevel, column: number, row: number): LevelArea {
  const x = column * TILE;
  const y = row * TILE;
  return { level: index, x, y, width: Math.min(TILE, level.width - x), height: Math.min(TILE, level.height - y) };
}

function copyOverlap(tile: Square, from: LevelArea, out: Square, to: LevelArea, channels: number): void {
  const left = Math.max(from.x, to.x);
  const right = Math.min(from.x + from.width, to.x + to.width);
  const top = Math.max(from.y, to.y);
  const bottom = Math.min(from.y + from.height, to.y + to.height);
  for (let y = top; y < bottom; y++) {
    const at = channels * ((y - from.y) * from.width + left - from.x);
    out.set(tile.subarray(at, at + channels * (right - left)), channels * ((y - to.y) * to.width + left - to.x));
  }
}

function range(first: number, last: number): number[] {
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}
