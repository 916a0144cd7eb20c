/** The nine parts of a picture, row by row. */
export const PLACE_NAMES = ["upper left", "above", "upper right", "left", "middle", "right", "lower left", "below", "lower right"] as const;

/** Which of the nine parts a place lies in. Units: parts of width and height. */
export function ninthOf(x: number, y: number): number {
  const third = (part: number) => Math.min(Math.max(Math.floor(3 * part), 0), 2);
  return 3 * third(y) + third(x);
}

/** "upper left, right and below", each once. */
export function placeList(places: readonly { x: number; y: number }[]): string {
  const names = [...new Set(places.map(({ x, y }) => PLACE_NAMES[ninthOf(x, y)]!))];
  return names.length < 2 ? names.join("") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
}
