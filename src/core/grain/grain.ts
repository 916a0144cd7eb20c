import type { Planes } from "../kernels/planes";

/**
 * What a reduced pixel holds besides its mean: two colours that stand for all it was made of, one darker, one lighter, each with its
 * share. Their luminances are the points of a two-point Gauss quadrature (Golub & Welsch 1969) of the light inside the pixel: mean,
 * variance and skewness are kept, so the mean of any cubic of them is exact, and so is any curve over an edge between two colours.
 * The colours lie on the line through the mean that fits how colour goes with light there (least squares).
 *
 * Units  linear light; shares 0–1.
 */
export interface Grain {
  darker: Planes;
  lighter: Planes;
  /** The part of the pixel that is of the lighter; 0 where there is no grain. The rest is of the darker. */
  share: Float32Array;
}

/** A darker tone within so much of the mean is none: no curve on the bench tells them apart. */
export const LEAST_DEPTH = 0.012;
export const LEAST_SHARE = 1 / 256;

/** Means over a pixel that grain is found from: of its colour, of the powers of its light, of products of both. */
export const MOMENTS = ["red", "green", "blue", "light2", "light3", "redLight", "blueLight"] as const;

/**
 * Grain as it is stored beside a level, in four bytes a pixel: in the lowest the share of the lighter, in 256ths, then how far red, green
 * and blue fall from the mean to the darker, as a part of the mean, in signed steps that are finer towards 1, where what is left of the
 * light is a small part. All 0 where there is none. Colours are those of the source's own primaries, so that none is below 0.
 */
export const SHARES = 256;
export const DEPTH_STEPS = 127;
