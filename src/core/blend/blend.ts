/** The separable blend modes, named as in W3C Compositing and Blending Level 1, section 9. */
export const BLEND_MODES = [
  "normal",
  "multiply",
  "screen",
  "overlay",
  "darken",
  "lighten",
  "color-dodge",
  "color-burn",
  "hard-light",
  "soft-light",
  "difference",
  "exclusion",
] as const;
export type BlendMode = (typeof BLEND_MODES)[number];

/** A mode in words: the standard's, spelt as all else is. */
export const blendWords = (mode: BlendMode) => mode.replace("-", " ").replace("color", "colour");

/**
 * A tone laid over another.
 *
 * Units   0–1 in and out: `below` is what enters the pass, `above` what its move makes of it.
 * Source  W3C Compositing and Blending Level 1, 9.1 (B(Cb, Cs)).
 */
export function blend(mode: BlendMode, below: number, above: number): number {
  switch (mode) {
    case "normal":
      return above;
    case "multiply":
      return below * above;
    case "screen":
      return below + above - below * above;
    case "overlay":
      return blend("hard-light", above, below);
    case "darken":
      return Math.min(below, above);
    case "lighten":
      return Math.max(below, above);
    case "color-dodge":
      return below === 0 ? 0 : above >= 1 ? 1 : Math.min(1, below / (1 - above));
    case "color-burn":
      return below >= 1 ? 1 : above <= 0 ? 0 : 1 - Math.min(1, (1 - below) / above);
    case "hard-light":
      return above <= 0.5 ? blend("multiply", below, 2 * above) : blend("screen", below, 2 * above - 1);
    case "soft-light":
      return softLight(below, above);
    case "difference":
      return Math.abs(below - above);
    case "exclusion":
      return below + above - 2 * below * above;
  }
}

function softLight(below: number, above: number): number {
  if (above <= 0.5) return below - (1 - 2 * above) * below * (1 - below);
  const lifted = below <= 0.25 ? ((16 * below - 12) * below + 4) * below : Math.sqrt(below);
  return below + (2 * above - 1) * (lifted - below);
}
