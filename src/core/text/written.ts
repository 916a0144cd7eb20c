// How numbers are written for people, and read when people type them.

/** A way of writing a number. */
export interface Written {
  format(value: number): string;
  /** Reads what was typed; undefined, or no finite number, where it means nothing. */
  parse(text: string): number | undefined;
}

/** A number as it is typed: with a comma or a point, a real minus, a percent sign; undefined where it is anything else besides. */
export function readNumber(text: string): number | undefined {
  const value = Number(text.replace("−", "-").replace(",", ".").replace("%", "").trim());
  return text.trim() === "" || Number.isNaN(value) ? undefined : value;
}

export function formatPercent(part: number): string {
  return `${Math.round(100 * part)} %`;
}

export function parsePercent(text: string): number | undefined {
  const percent = readNumber(text);
  return percent === undefined ? undefined : percent / 100;
}

/** A length or a share that is set by its power of two; pixels may be said. */
export function parsePower(text: string): number | undefined {
  const value = readNumber(text.replace(/px/i, ""));
  return value !== undefined && value > 0 ? Math.log2(value) : undefined;
}

/** A part of a whole, in percent. */
export const PERCENT: Written = { format: formatPercent, parse: parsePercent };

/** The same with so many places behind the point. */
export function finePercent(places: number): Written {
  return { format: (part) => `${(100 * part).toFixed(places)} %`, parse: parsePercent };
}

/** The same of what is added or taken away: with its sign. */
export const SIGNED_PERCENT: Written = {
  format: (amount) => `${amount < 0 ? "−" : amount > 0 ? "+" : ""}${formatPercent(Math.abs(amount))}`,
  parse: parsePercent,
};

/** "20 cooler", "-20", "20 mired": a number, below nothing where a word that means less is there. */
export function parseEither(less: RegExp): Written["parse"] {
  return (text) => {
    const found = /^\s*([+−-]?)\s*(\d+(?:[.,]\d+)?)\s*([a-z ]*)$/i.exec(text);
    if (!found) return undefined;
    const [, sign, size, words] = found;
    const value = Number(size!.replace(",", "."));
    return (sign && sign !== "+") || less.test(words!) ? -value : value;
  };
}
