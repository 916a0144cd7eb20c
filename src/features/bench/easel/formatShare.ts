/** A part of the picture in per cent, as short as it can be read. */
export function formatShare(share: number): string {
  const percent = 100 * share;
  if (percent === 0) return "–";
  return percent < 0.1 ? "<0.1 %" : `${percent < 10 ? percent.toFixed(1) : Math.round(percent)} %`;
}
