import { toneToLuminance } from "../colour/lstar";
import { srgbEncode } from "../colour/transferCurve";
import { jumpTable, pairTable } from "../kernels/pairTable";
import { TONE_KNOTS } from "../zones/toneKnots";
import { LAST_ZONE, owningZone } from "../zones/zone";
import type { Zone } from "../units";

/** Ways of looking at a print's tones; each is one table from tone to grey. */
export type Look =
  | { kind: "picture" }
  /** Flat steps, one a zone. */
  | { kind: "stepped" }
  /** One zone as it is, all else drawn towards the easel's grey. */
  | { kind: "zone"; zone: Zone };

/** How much of its contrast the dimmed part of the picture keeps, and the tone it gathers around. */
const DIMMED_CONTRAST = 0.2;
const DIMMED_AROUND = 0.6;

/** Tone to sRGB-encoded grey in levels 0–`top`. */
export function encodedLevels(top: 255 | 65535): Float32Array {
  return pairTable(TONE_KNOTS, (t) => top * srgbEncode(toneToLuminance(t)));
}

/** Knots of what is shown on screen: borders of zones lie on knots, and the table leaves room in the cache beside a pass's. */
const LOOK_KNOTS = 1280;

/** Tone to grey levels 0–255 for a way of looking. */
export function lookTable(look: Look): Float32Array {
  return jumpTable(LOOK_KNOTS, (t) => 255 * srgbEncode(toneToLuminance(shownTone(look, t))));
}

/**
 * How far colour laid on tones is seen with them, over tone: absent where it is everywhere, 0 where tones are flat steps or drawn towards
 * the easel's grey.
 */
export function lookShare(look: Look): Float32Array | undefined {
  if (look.kind === "picture") return undefined;
  return jumpTable(LOOK_KNOTS, (t) => (look.kind === "zone" && owningZone(t * LAST_ZONE) === look.zone ? 1 : 0));
}

/** Linear light to sRGB-encoded levels 0–`top`, for showing colour. */
export function encodedLight(top: 255 | 65535 = 255, knots: number = TONE_KNOTS): Float32Array {
  return pairTable(knots, (y) => top * srgbEncode(y)); // steep at black: needs the finer table
}

function shownTone(look: Look, t: number): number {
  const zone = owningZone(t * LAST_ZONE);
  switch (look.kind) {
    case "picture":
      return t;
    case "stepped":
      return zone / LAST_ZONE;
    case "zone":
      return zone === look.zone ? t : DIMMED_AROUND + DIMMED_CONTRAST * (t - DIMMED_AROUND);
  }
}
