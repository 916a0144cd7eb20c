/** Another light, or a filter before the lens. */
export interface BalanceMove {
  kind: "balance";
  /** How much warmer the light becomes, in mired (a million over its temperature in kelvin); below nothing cooler. */
  mired: number;
  /** Magenta, below nothing green, in hundredths of density of green, as colour compensating filters are numbered. */
  tint: number;
}
export const MIRED_LIMIT = 90;
export const TINT_LIMIT = 50;
