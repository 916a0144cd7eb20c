/** OKLCH chroma at which a colour begins to count as coloured, and from which it fully does. */
export const CHROMA_FADE = { from: 0.008, to: 0.06 } as const;

/** Luminance from which a mix bends that would pass white. */
export const SHOULDER_FROM = 0.5;

/** Where, as a part of the light kept, a mix with negative weights begins to bend instead of falling below black. */
export const FLOOR_KNEE = 0.25;
