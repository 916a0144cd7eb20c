import { pairTable } from "@/core/kernels/pairTable";
import { readTable } from "@/core/kernels/reference";
import type { ForOutput } from "@/core/passes/sharpen/forOutput";
import { sharpened } from "@/core/passes/sharpen/sharpen";
import { mapRows, type PrintRows } from "./printRows";
import type { Size } from "@/core/spatial/areaReduce";
import { detailOf, detailReach } from "@/core/spatial/detail";
import { TONE_KNOTS } from "@/core/zones/toneKnots";

type RowsOf = (from: number, to: number) => PrintRows;

/** Rows of a print sharpened in their tones, from rows of it and of those close above and below. Any split into runs gives the same tones. */
export function sharpenedRows(rowsOf: RowsOf, { width, height }: Size, settings: ForOutput): RowsOf {
  const reach = detailReach(settings.pixels);
  const added = pairTable(TONE_KNOTS, (place) => sharpened(2 * place - 1, settings));
  return (from, to) => {
    const first = Math.max(from - reach, 0);
    const around = rowsOf(first, Math.min(to + reach, height));
    const differences = detailOf(around.tone, { width, height: around.tone.length / width }, settings.pixels);
    const at = (from - first) * width;
    const rows = mapRows(around, (plane) => plane.slice(at, (to - first) * width));
    const { tone } = rows;
    for (let i = 0; i < tone.length; i++) tone[i] = Math.min(Math.max(tone[i]! + readTable(added, differences[at + i]!), 0), 1);
    return rows;
  };
}
