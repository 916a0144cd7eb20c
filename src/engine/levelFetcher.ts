import type { PreparedLevel } from "@/contracts/preparedPicture";
import type { LevelArea } from "./messages";

/** Edge of the squares a level is fetched in, in pixels. */
const TILE = 512;
/** Squares kept: 64 of 16-bit RGB are 100 MB. */
const MOST_TILES = 64;

export type Levels = Uint8Array<ArrayBuffer> | Uint16Array<ArrayBuffer>;
export type FetchArea = (area: LevelArea, signal: AbortSignal) => Promise<ArrayBuffer>;

/** Fetches parts of a picture's levels square by square, keeping the ones used last. */
export class LevelFetcher {
  readonly #tiles = new Map<string, Levels>();

  constructor(
    readonly levels: readonly PreparedLevel[],
    readonly fetchArea: FetchArea,
  ) {}

  /** The levels of an area, row after row. Errors: whatever the fetch throws; AbortError. */
  async read(area: LevelArea, signal: AbortSignal): Promise<Levels> {
    const level = this.levels[area.level]!;
    const out = level.depth === 8 ? new Uint8Array(3 * area.width * area.height) : new Uint16Array(3 * area.width * area.height);
    const columns = range(Math.floor(area.x / TILE), Math.floor((area.x + area.width - 1) / TILE));
    const rows = range(Math.floor(area.y / TILE), Math.floor((area.y + area.height - 1) / TILE));
    const places = rows.flatMap((row) => columns.map((column) => ({ row, column })));
    await Promise.all(
      places.map(async ({ row, column }) => {
        const tile = tileArea(area.level, level, column, row);
        copyOverlap(await this.#tile(tile, signal), tile, out, area);
      }),
    );
    return out;
  }

  async #tile(tile: LevelArea, signal: AbortSignal): Promise<Levels> {
    const key = `${tile.level} ${tile.x} ${tile.y}`;
    let levels = this.#tiles.get(key);
    if (levels) {
      this.#tiles.delete(key); // to the end of the line
    } else {
      const bytes = await this.fetchArea(tile, signal);
      levels = this.levels[tile.level]!.depth === 8 ? new Uint8Array(bytes) : new Uint16Array(bytes);
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

function copyOverlap(tile: Levels, from: LevelArea, out: Levels, to: LevelArea): void {
  const left = Math.max(from.x, to.x);
  const right = Math.min(from.x + from.width, to.x + to.width);
  const top = Math.max(from.y, to.y);
  const bottom = Math.min(from.y + from.height, to.y + to.height);
  for (let y = top; y < bottom; y++) {
    const at = 3 * ((y - from.y) * from.width + left - from.x);
    out.set(tile.subarray(at, at + 3 * (right - left)), 3 * ((y - to.y) * to.width + left - to.x));
  }
}

function range(first: number, last: number): number[] {
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}
