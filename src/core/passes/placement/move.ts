import type { Strand } from "./strand";

/** Tones from → to on the zone scale. */
export interface PlacementMove {
  kind: "placement";
  /** Ordered: strictly increasing from, non-decreasing to. */
  strands: Strand[];
}
