/** 0 up to 0, 1 from 1 on, level at both. */
export function smoothStep(u: number): number {
  const v = Math.min(Math.max(u, 0), 1);
  return v * v * (3 - 2 * v);
}
