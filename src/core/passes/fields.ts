import type { Written } from "../text/written";

/** A number of a move: all that sliders, words, schema and tests must know of it. */
export interface NumberField {
  /** What it is, as a plan's schema says it: in a plan's units. Empty where its name tells. */
  about: string;
  label: string;
  /** What it sets, in the history, where the label alone does not say it. */
  words?: string;
  least: number;
  most: number;
  /** What a double click brings back; and a new pass begins with, unless its kind says otherwise. */
  rest: number;
  /** What a key adds. */
  step: number;
  written: Written;
  /** Whether it is set by its power of two, as sizes are: then the step is one of that. */
  byPower?: true;
}

/** The names of a move's plain numbers. */
export type NumberNames<M> = { [N in keyof M]-?: M[N] extends number ? N : never }[keyof M];

/** A field for each plain number of a move. What is more than a number has schema and panel of its own. */
export type Fields<M> = { readonly [N in NumberNames<M>]: NumberField };

/** Each number at rest. */
export function restOf<F extends Readonly<Record<string, NumberField>>>(fields: F): { [N in keyof F]: number } {
  return Object.fromEntries(Object.entries(fields).map(([name, { rest }]) => [name, rest])) as { [N in keyof F]: number };
}
