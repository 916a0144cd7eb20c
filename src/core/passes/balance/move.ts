/** Another light, or a filter before the lens. */
export interface BalanceMove {
  kind: "balance";
  /** How much warmer the light becomes, in mired (a million over its temperature in kelvin); below nothing cooler. */
  mired: number;
  /** Magenta, below nothing green, in hundredths of density of green, as colour compensating filters are numbered. */
  tint: number;
}
/** So that what was lit by a candle, 2000 K, or by a northern sky, 25,000 K, becomes neutral in one pass. */
export const MOST_WARMER = 150;
export const MOST_COOLER = 400;
export const TINT_LIMIT = 50;
