/** How a value is shown and typed. */
export interface TypedAs {
  min: number;
  max: number;
  rest: number;
  format(value: number): string;
  /** Reads a figure; undefined, or no finite number, where it is none. */
  parse(text: string): number | undefined;
}

/**
 * What a typed text means: any word the value is shown by at its ends or at rest, or a figure, kept within the range; or else
 * what was wanted, in words.
 */
export function readTyped(text: string, { min, max, rest, format, parse }: TypedAs): { value: number } | { wanted: string } {
  const said = text.trim().toLowerCase();
  const shown = [min, max, rest, 0].find((value) => value >= min && value <= max && format(value).toLowerCase() === said);
  if (shown !== undefined) return { value: shown };
  const typed = said === "" ? undefined : parse(text);
  if (typed === undefined || !Number.isFinite(typed)) return { wanted: `Wanted is ${format(min)} to ${format(max)}.` };
  return { value: Math.min(Math.max(typed, min), max) };
}
