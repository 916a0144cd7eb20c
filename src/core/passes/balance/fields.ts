import { parseEither, type Written } from "../../text/written";
import type { Fields } from "../fields";
import { MOST_COOLER, MOST_WARMER, TINT_LIMIT, type BalanceMove } from "./move";

export const MIRED: Written = {
  format: (mired) => (mired === 0 ? "0" : `${Math.abs(Math.round(mired))} mired ${mired > 0 ? "warmer" : "cooler"}`),
  parse: parseEither(/cool/i),
};
export const TINGE: Written = {
  format: (tint) => (tint === 0 ? "0" : `${Math.abs(Math.round(tint))} ${tint > 0 ? "magenta" : "green"}`),
  parse: parseEither(/green/i),
};

export const balanceFields: Fields<BalanceMove> = {
  mired: {
    about: "How much warmer the light becomes, in mired; below nothing cooler",
    label: "Warmth",
    least: -MOST_COOLER,
    most: MOST_WARMER,
    rest: 0,
    step: 1,
    written: MIRED,
  },
  tint: {
    about: "Magenta, below nothing green, in hundredths of density of green",
    label: "Tint",
    least: -TINT_LIMIT,
    most: TINT_LIMIT,
    rest: 0,
    step: 1,
    written: TINGE,
  },
};
