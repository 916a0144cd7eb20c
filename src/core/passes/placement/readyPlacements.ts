import type { Strand } from "./strand";

/** A placement to start from. */
export interface ReadyPlacement {
  name: string;
  purpose: string;
  strands: readonly Strand[];
}

const placed = (...pairs: (readonly [number, number])[]): Strand[] => pairs.map(([from, to]) => ({ from, to }));

/** Placements of our own to start from; all of them keep the order of tones and strain none. */
export const READY_PLACEMENTS: readonly ReadyPlacement[] = [
  { name: "Soft", purpose: "Ends drawn in, the middle calm", strands: placed([0, 0.7], [2.5, 2.9], [5, 5], [7.5, 7.1], [10, 9.4]) },
  { name: "Hard", purpose: "Middle tones pulled apart", strands: placed([0, 0], [3, 2.1], [5, 5], [7, 7.9], [10, 10]) },
  { name: "High key", purpose: "Everything light, nothing lost", strands: placed([0, 1.5], [3, 4.9], [5, 6.8], [8, 9], [10, 10]) },
  { name: "Low key", purpose: "Everything dark, lights kept", strands: placed([0, 0], [3, 1.6], [5, 3], [8, 6.2], [10, 9.6]) },
  {
    name: "Open shadows",
    purpose: "Zones I to III up a little, black stays",
    strands: placed([0, 0], [1, 1.4], [2, 2.8], [3.5, 4.1], [5, 5.2], [7, 7], [10, 10]),
  },
  { name: "Deep shadows", purpose: "Zones II to IV down, lights stay", strands: placed([0, 0], [2, 1.1], [4, 3.3], [6, 6], [10, 10]) },
  {
    name: "Hold highlights",
    purpose: "Zones VII to IX down before they burn out",
    strands: placed([0, 0], [5, 5], [7, 6.7], [9, 8.3], [10, 9.6]),
  },
  {
    name: "Bright highlights",
    purpose: "Zones VI to VIII up, middle stays",
    strands: placed([0, 0], [5, 5], [6.5, 6.8], [8, 8.7], [10, 10]),
  },
  {
    name: "Luminous middle",
    purpose: "Zone V to nearly VI, ends stay",
    strands: placed([0, 0], [2, 2], [4, 4.5], [5, 5.8], [6, 6.7], [8, 8.1], [10, 10]),
  },
  { name: "Mist", purpose: "No blacks, all of it far away", strands: placed([0, 3.6], [5, 6.3], [10, 9.7]) },
  { name: "Night", purpose: "Day brought down to evening", strands: placed([0, 0], [5, 2.6], [8, 4.7], [10, 7.2]) },
];
