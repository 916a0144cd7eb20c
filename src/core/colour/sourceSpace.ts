import { IDENTITY3, type Matrix3 } from "./matrix3";
import { SRGB_TO_P3 } from "./primaries";
import { SRGB_CURVE, type TransferCurve } from "./transferCurve";

/** What the stored RGB levels of a picture mean: a curve a channel, then a matrix to linear P3. */
export interface SourceSpace {
  /** As shown to a person: "sRGB", "Display P3", or the profile's own description. */
  name: string;
  curves: readonly [TransferCurve, TransferCurve, TransferCurve];
  toP3: Matrix3;
}

/** What an untagged picture is read as, at 8 and at 16 bits alike. */
export const SRGB_SPACE: SourceSpace = {
  name: "sRGB",
  curves: [SRGB_CURVE, SRGB_CURVE, SRGB_CURVE],
  toP3: SRGB_TO_P3,
};

/** Display P3: what our own reduced levels are stored in, and what the decoder converts odd profiles to. */
export const P3_SPACE: SourceSpace = {
  name: "Display P3",
  curves: [SRGB_CURVE, SRGB_CURVE, SRGB_CURVE],
  toP3: IDENTITY3,
};
