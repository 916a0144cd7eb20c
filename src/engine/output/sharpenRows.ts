import { readTable, pairTable } from "@/core/kernels/pairTable";
import { actsAtSlope, type ForOutput } from "@/core/passes/sharpen/forOutput";
import { sharpened } from "@/core/passes/sharpen/sharpen";
import { mapRows, type PrintRows } from "../machine/printRows";
import type { Size } from "@/core/spatial/areaReduce";
import { detailOf, detailReach } from "@/core/spatial/detail";
import { TONE_KNOTS } from "@/core/zones/toneKnots";

type RowsOf = (from: number, to: number) => PrintRows;

/**
 * Rows of a print sharpened in their tones where these slope, from rows of it and of those close above and below. Any split into runs gives
 * the same tones.
 */
export function sharpenedRows(rowsOf: RowsOf, { width, height }: Size, settings: ForOutput): RowsOf {
  const reach = detailReach(settings.pixels) + 1;
  const added = pairTable(TONE_KNOTS, (place) => sharpened(2 * place - 1, settings));
  return (from, to) => {
    const first = Math.max(from - reach, 0);
    const around = rowsOf(first, Math.min(to + reach, height));
    const differences = detailOf(around.tone, { width, height: around.tone.length / width }, settings.pixels);
    const at = (from - first) * width;
    const last = around.tone.length / width - 1;
    const means = new Float32Array(around.tone.length);
    for (let i = 0; i < means.length; i++) means[i] = around.tone[i]! - (2 * differences[i]! - 1);
    const rows = mapRows(around, (plane) => plane.slice(at, (to - first) * width));
    const { tone } = rows;
    for (let y = 0, i = 0; y < to - from; y++) {
      // At a border the last mean goes on.
      const row = y + from - first;
      const [above, here, below] = [Math.max(row - 1, 0) * width, row * width, Math.min(row + 1, last) * width];
      for (let x = 0; x < width; x++, i++) {
        const along = (means[here + (x + 1 < width ? x + 1 : x)]! - means[here + (x > 0 ? x - 1 : 0)]!) / 2;
        const across = (means[below + x]! - means[above + x]!) / 2;
        const share = actsAtSlope(settings.slopes, along, across);
        if (share > 0) tone[i] = Math.min(Math.max(tone[i]! + share * readTable(added, differences[at + i]!), 0), 1);
      }
    }
    return rows;
  };
}
