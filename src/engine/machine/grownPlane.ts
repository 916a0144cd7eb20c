/** Rows of a plane, from one up to another. */
export interface Rows {
  from: number;
  to: number;
}
export const NO_ROWS: Rows = { from: 0, to: 0 };

/** A plane that may change in place as what it is made of grows. Not to be changed by others, and good until it is asked for again. */
export interface GrownPlane {
  plane: Float32Array;
  /** No two states of any plane have the same. */
  version: number;
  /** Which version it was before, and the rows that changed since; undefined where it is all new. */
  grown: { from: number; rows: Rows } | undefined;
}

let versions = 0;

/** A plane in a new state. */
export function inNewState(plane: Float32Array, grown?: GrownPlane["grown"]): GrownPlane {
  return { plane, version: ++versions, grown };
}

/** The rows in which a plane differs from one of its earlier versions; undefined where that may be all. */
export function rowsSince({ version, grown }: GrownPlane, earlier: number | undefined): Rows | undefined {
  if (version === earlier) return NO_ROWS;
  return grown?.from === earlier ? grown?.rows : undefined;
}

/** The rows of both, and those between them. */
export function rowsTogether(a: Rows, b: Rows): Rows {
  if (a.to <= a.from) return b;
  if (b.to <= b.from) return a;
  return { from: Math.min(a.from, b.from), to: Math.max(a.to, b.to) };
}
