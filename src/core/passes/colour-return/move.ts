/** The picture's own colour laid on the tones, as it is mixed. */
export interface ColourReturnMove {
  kind: "colour-return";
  /** 1 as it is. */
  saturation: number;
}

export const MOST_RETURNED_SATURATION = 2;
