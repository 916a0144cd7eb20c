import type { Size } from "../spatial/areaReduce";

/** Neighbouring cells of a plane that are marked. */
export interface Patch {
  /** Indices of its cells. */
  cells: number[];
  /** Its middle, as parts of the width and height. */
  x: number;
  y: number;
}

/** The patches of marked cells, those side by side or one above the other together; the largest first. */
export function patchesOf(isMarked: (cell: number) => boolean, { width, height }: Size): Patch[] {
  const seen = new Uint8Array(width * height);
  const patches: Patch[] = [];
  for (let start = 0; start < seen.length; start++) {
    if (seen[start] || !isMarked(start)) continue;
    const cells = [start];
    seen[start] = 1;
    for (let i = 0; i < cells.length; i++) {
      const cell = cells[i]!;
      const x = cell % width;
      const beside = [x > 0 ? cell - 1 : -1, x < width - 1 ? cell + 1 : -1, cell - width, cell + width];
      for (const next of beside) {
        if (next < 0 || next >= seen.length || seen[next] || !isMarked(next)) continue;
        seen[next] = 1;
        cells.push(next);
      }
    }
    const mean = (of: (cell: number) => number) => cells.reduce((sum, cell) => sum + of(cell) + 0.5, 0) / cells.length;
    patches.push({ cells, x: mean((cell) => cell % width) / width, y: mean((cell) => Math.floor(cell / width)) / height });
  }
  return patches.sort((a, b) => b.cells.length - a.cells.length);
}
