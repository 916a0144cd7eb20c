import { pairTable } from "@/core/kernels/pairTable";
import { readTable } from "@/core/kernels/reference";
import type { ForOutput } from "@/core/passes/sharpen/forOutput";
import { sharpened } from "@/core/passes/sharpen/sharpen";
import type { Size } from "@/core/spatial/areaReduce";
import { detailOf, detailReach } from "@/core/spatial/detail";
import { TONE_KNOTS } from "@/core/zones/toneKnots";

type RowsOf = (from: number, to: number) => Float32Array;

/** Rows of tones sharpened, from rows of them and of those close above and below. Any split into runs gives the same tones. */
export function sharpenedRows(tonesOf: RowsOf, { width, height }: Size, settings: ForOutput): RowsOf {
  const reach = detailReach(settings.pixels);
  const added = pairTable(TONE_KNOTS, (place) => sharpened(2 * place - 1, settings));
  return (from, to) => {
    const first = Math.max(from - reach, 0);
    const tones = tonesOf(first, Math.min(to + reach, height));
    const differences = detailOf(tones, { width, height: tones.length / width }, settings.pixels);
    const rows = tones.slice((from - first) * width, (to - first) * width);
    const at = (from - first) * width;
    for (let i = 0; i < rows.length; i++) rows[i] = Math.min(Math.max(rows[i]! + readTable(added, differences[at + i]!), 0), 1);
    return rows;
  };
}
