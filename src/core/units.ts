declare const unit: unique symbol;

/**
 * A value of a unit. A plain one passes for it, one of another unit does not; what is reckoned from it is plain again. Nothing of it is
 * left when it runs.
 */
type Of<T, U extends string> = T & { readonly [unit]?: U };

/** L* ∕ 100 of what the print shows: 0 is black, 1 paper white. */
export type Tone = Of<number, "tone">;
/** A place on the zone scale: ten times the tone. */
export type Zone = Of<number, "zone">;
/** Luminance, linear, relative to white. */
export type Light = Of<number, "light">;
/** Doublings of light. */
export type Stops = Of<number, "stops">;
/** A length or place on the picture, in its long edges: the same at any size. */
export type Length = Of<number, "long edges">;
/** A part of a width or a height, 0–1. */
export type Fraction = Of<number, "fraction">;
/** Of a level, or of the page. */
export type Pixels = Of<number, "pixels">;

export interface PixelPoint {
  x: Pixels;
  y: Pixels;
}

/** A place or a way in whatever unit what it is of is told in. */
export interface XY {
  x: number;
  y: number;
}

/** The same without its units. */
export type Plain<T> = T extends unknown ? (number extends T ? number : T extends object ? { [K in keyof T]: Plain<T[K]> } : T) : never;

/** Planes of such values, row after row. */
export type TonePlane = Of<Float32Array, "tone">;
export type StopsPlane = Of<Float32Array, "stops">;
