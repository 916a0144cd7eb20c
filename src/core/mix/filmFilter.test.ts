import { expect, test } from "vitest";
import { eye, FILMS, FILTERS, sensitised, WAVELENGTHS, type FilmName, type FilterName } from "./filmFilter";
import { LUMINANCE_WEIGHTS, weightSum, type Weights } from "./weights";

const films = Object.keys(FILMS) as FilmName[];
const filters = Object.keys(FILTERS) as FilterName[];
const through = (film: FilmName, filter: FilterName) => sensitised(film, filter)!;
/** Colours of things, linear: what a photographer looks for. */
const SKY = { red: 0.16, green: 0.3, blue: 0.62 };
const LEAF = { red: 0.1, green: 0.19, blue: 0.05 };
const BRICK = { red: 0.32, green: 0.12, blue: 0.07 };
const read = (thing: Weights, { red, green, blue }: Weights) => red * thing.red + green * thing.green + blue * thing.blue;

test("all curves lie between nothing and all, and are smooth", () => {
  for (const curve of [...films.map((film) => FILMS[film].sees), ...filters.map((filter) => FILTERS[filter].passes)])
    WAVELENGTHS.reduce((before, nm) => {
      const value = curve(nm);
      expect(value).toBeGreaterThanOrEqual(0);
      expect(value).toBeLessThanOrEqual(1.02);
      expect(Math.abs(value - before)).toBeLessThan(0.2);
      return value;
    }, curve(WAVELENGTHS[0]!));
});

test("the eye as a film would read plain luminance", () => {
  // By hand, from the same statement: blue light ends and red begins where that comes out.
  const share = (of: (nm: number) => number) =>
    WAVELENGTHS.reduce((sum, nm) => sum + eye(nm) * of(nm), 0) / WAVELENGTHS.reduce((sum, nm) => sum + eye(nm), 0);
  const blueEnd = WAVELENGTHS.find((nm) => share((at) => Number(at <= nm)) > LUMINANCE_WEIGHTS.blue)!;
  const redBegin = WAVELENGTHS.find((nm) => share((at) => Number(at >= nm)) < LUMINANCE_WEIGHTS.red)!;
  // Green light alone lies between: a green filter on any film that sees green leaves mostly that.
  expect(blueEnd).toBeGreaterThan(490);
  expect(redBegin).toBeLessThan(610);
  expect(through("pan", "58").weights.green).toBeGreaterThan(0.75);
});

test("weights add up to 1, none is negative, and no filter needs no longer exposure", () => {
  for (const film of films) {
    expect(through(film, "none").factor).toEqual({ daylight: 0, tungsten: 0 });
    for (const filter of filters) {
      const found = sensitised(film, filter);
      if (!found) continue;
      expect(weightSum(found.weights)).toBeCloseTo(1, 12);
      expect(Math.min(...Object.values(found.weights))).toBeGreaterThanOrEqual(0);
      expect(Math.min(found.factor.daylight, found.factor.tungsten)).toBeGreaterThanOrEqual(0);
    }
  }
});

test("what the trade knows of films and filters holds", () => {
  // Skies grow darker from yellow to deep red, bricks lighter, each filter longer to expose.
  const ladder = (["none", "8", "15", "16", "21", "25", "29"] as const).map((filter) => through("pan", filter));
  ladder.slice(1).forEach((next, k) => {
    expect(read(SKY, next.weights)).toBeLessThan(read(SKY, ladder[k]!.weights));
    expect(read(BRICK, next.weights)).toBeGreaterThan(read(BRICK, ladder[k]!.weights));
    expect(next.factor.daylight).toBeGreaterThan(ladder[k]!.factor.daylight);
  });
  // Foliage is lightest by green, a sky by blue.
  expect(read(LEAF, through("pan", "58").weights)).toBeGreaterThan(read(LEAF, through("pan", "none").weights));
  expect(read(SKY, through("pan", "47").weights)).toBeGreaterThan(read(SKY, through("pan", "none").weights));
  // Plates that see blue alone: a sky like paper, bricks like pitch; orthochromatic film between them and panchromatic.
  const bricks = (["blue", "ortho", "pan", "red"] as const).map((film) => read(BRICK, through(film, "none").weights));
  expect(bricks).toEqual(bricks.toSorted((a, b) => a - b));
});

// As printed for panchromatic films in handbooks of the trade, in stops.
test.each([
  ["8", 1, 2 / 3],
  ["15", 4 / 3, 2 / 3],
  ["16", 5 / 3, 1],
  ["21", 7 / 3, 5 / 3],
  ["25", 3, 7 / 3],
  ["29", 4, 3],
  ["11", 2, 5 / 3],
  ["58", 8 / 3, 8 / 3],
  ["47", 8 / 3, 10 / 3],
] as const)("filter %s costs what is printed of it: in thirds of a stop by day, within a third by lamps", (filter, day, lamps) => {
  const { daylight, tungsten } = through("pan", filter).factor;
  expect(Math.round(3 * daylight)).toBe(Math.round(3 * day));
  expect(Math.abs(tungsten - lamps)).toBeLessThan(1 / 3);
});

test("where a filter leaves nothing that a film sees, nothing is exposed", () => {
  expect(sensitised("blue", "29")).toBeUndefined();
  expect(sensitised("ortho", "29")).toBeUndefined();
  expect(sensitised("pan", "29")).toBeDefined();
});
