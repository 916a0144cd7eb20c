import type { Planes } from "../kernels/planes";
import { distanceFrom } from "../brush/path";
import { describe, expect, test } from "vitest";
import { packPath } from "../brush/stroke";
import type { Point } from "../region/region";
import { areaAround, common, holds } from "./area";
import { lay, mend, type Pixels } from "./mend";
import { spotPieces } from "./pieces";
import { proposeSource } from "./proposeSource";
import { luminanceToTone } from "../colour/lstar";
import { drawnOf, reachOf, RESTING_FADE, type Spot } from "./spot";

// Spots on made pictures, of which it is known what lay beneath the dust.

const SIZE = { width: 160, height: 120 };
const LONG = 160;
type Light = (x: number, y: number) => readonly [number, number, number];

function picture(of: Light, dust?: { at: Point; radius: number }): Pixels {
  const pixels = SIZE.width * SIZE.height;
  const colour: Planes = { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
  for (let i = 0; i < pixels; i++) {
    const [x, y] = [(i % SIZE.width) + 0.5, Math.floor(i / SIZE.width) + 0.5];
    const isDust = dust && Math.hypot(x - dust.at.x, y - dust.at.y) < dust.radius;
    const [red, green, blue] = isDust ? [0.02, 0.02, 0.02] : of(x, y);
    colour.red[i] = red;
    colour.green[i] = green;
    colour.blue[i] = blue;
  }
  return { area: { x: 0, y: 0, ...SIZE }, colour, grain: undefined };
}

const at = (...points: [number, number][]) => packPath(points.map(([x, y]) => ({ x: x / LONG, y: y / LONG, pressure: 1 })));
const spotAt = (changed: Partial<Spot> = {}): Spot => ({
  id: "spot",
  kind: "heal",
  path: at([60, 50]),
  radius: 6 / LONG,
  softness: 0.3,
  from: { x: 25 / LONG, y: 0 },
  ...changed,
});

function healed(spot: Spot, pixels: Pixels): Pixels {
  const { red, green, blue } = pixels.colour;
  const out: Pixels = { ...pixels, colour: { red: red.slice(), green: green.slice(), blue: blue.slice() } };
  for (const piece of spotPieces(spot, SIZE)) lay(mend(piece, out, out), out);
  return out;
}

/** The greatest difference of two pictures within a reach of a path. */
function worst(a: Pixels, b: Pixels, path: readonly Point[], reach: number): number {
  let most = 0;
  for (let i = 0; i < a.colour.red.length; i++) {
    const place = { x: (i % SIZE.width) + 0.5, y: Math.floor(i / SIZE.width) + 0.5 };
    if (distanceFrom(path, place) > reach) continue;
    for (const name of ["red", "green", "blue"] as const) most = Math.max(most, Math.abs(a.colour[name][i]! - b.colour[name][i]!));
  }
  return most;
}

const MIDDLE = [{ x: 60, y: 50 }];
const dust = { at: MIDDLE[0]!, radius: 4 };
/** Noise that is the same for the same place. */
const grain = (x: number, y: number) => {
  const hashed = Math.sin(12.9898 * Math.floor(x) + 78.233 * Math.floor(y)) * 43758.5453;
  return hashed - Math.floor(hashed) - 0.5;
};

describe("healing", () => {
  test.each([
    ["even light", () => [0.3, 0.4, 0.5] as const],
    ["light that changes evenly", (x: number, y: number) => [0.2 + 0.002 * x, 0.3 + 0.001 * y, 0.5 - 0.001 * x] as const],
  ])("%s is met to a thousandth", (_, of: Light) => {
    expect(worst(healed(spotAt(), picture(of, dust)), picture(of), MIDDLE, 10)).toBeLessThan(1e-3);
  });

  test("light that bends over the picture is met to a thousandth", () => {
    const sky: Light = (x, y) => [0.2 + 0.1 * Math.sin(x / 60) ** 2, 0.3 + 0.1 * Math.sin(x / 80 + y / 50) ** 2, 0.6];
    expect(worst(healed(spotAt(), picture(sky, dust)), picture(sky), MIDDLE, 10)).toBeLessThan(1e-3);
  });

  test("light that rises one way and falls the other is met at the border, as no plane would", () => {
    const of: Light = (x, y) => {
      const bend = x < 75 ? 0.0004 * ((x - 60) ** 2 - (y - 50) ** 2) : 0;
      return [0.3 + bend, 0.3 + bend, 0.3 + bend];
    };
    // A plane is 0.0076 off.
    expect(worst(healed(spotAt({ from: { x: 40 / LONG, y: 0 } }), picture(of, dust)), picture(of), MIDDLE, 6)).toBeLessThan(0.0065);
  });

  test("a texture comes with its contrast where it is darker there", () => {
    const of: Light = (x, y) => {
      const light = (x < 72 ? 0.1 : 0.4) * (1 + 0.3 * grain(x, y));
      return [light, light, light];
    };
    const spread = ({ colour }: Pixels) => {
      const values: number[] = [];
      for (let y = 47; y < 54; y++) for (let x = 57; x < 64; x++) values.push(colour.green[y * SIZE.width + x]!);
      const mean = values.reduce((a, b) => a + b, 0) / values.length;
      return { mean, deviation: Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length) };
    };
    const found = spread(healed(spotAt(), picture(of, dust)));
    const wanted = spread(picture(of));
    expect(found.mean / wanted.mean).toBeCloseTo(1, 1);
    expect(found.deviation / wanted.deviation).toBeGreaterThan(0.8);
    expect(found.deviation / wanted.deviation).toBeLessThan(1.25);
  });

  test("an edge beside what it takes from throws no light over it", () => {
    // Beside the spot all is even; the source lies just beside a dark edge that reaches its surroundings alone.
    const of: Light = (x) => (x > 92.5 ? [0.03, 0.03, 0.03] : [0.4, 0.4, 0.45]);
    // Were all of the ring believed it would be 0.14 off.
    expect(worst(healed(spotAt(), picture(of, dust)), picture(of), MIDDLE, 6)).toBeLessThan(0.01);
  });

  test("a clone is what lies there, to the bit", () => {
    const of: Light = (x, y) => [0.3 + 0.2 * grain(x, y), x / 400, y / 300];
    const found = healed(spotAt({ kind: "clone", softness: 0 }), picture(of));
    const from = 50 * SIZE.width + 60;
    expect(found.colour.red[from]).toBe(picture(of).colour.red[from + 25]);
  });

  test("nothing changes beyond its radius, and all of it within the hard part", () => {
    const of: Light = (x, y) => [0.3 + 0.2 * grain(x, y), 0.2, 0.4];
    const [before, after] = [picture(of), healed(spotAt({ kind: "clone" }), picture(of))];
    for (let i = 0; i < before.colour.red.length; i++) {
      const away = Math.hypot((i % SIZE.width) + 0.5 - 60, Math.floor(i / SIZE.width) + 0.5 - 50);
      if (away > 6) expect(after.colour.red[i]).toBe(before.colour.red[i]);
      if (away < 4) expect(after.colour.red[i]).toBe(before.colour.red[i + 25]);
    }
  });

  test("a long scratch is cut in pieces that leave no joints", () => {
    const of: Light = (x, y) => [0.2 + 0.002 * x, 0.3 + 0.001 * y, 0.5 - 0.001 * x];
    const spot = spotAt({ path: at([20, 20], [80, 90], [130, 95]), radius: 3 / LONG, from: { x: 0, y: -12 / LONG } });
    expect(spotPieces(spot, SIZE).length).toBeGreaterThan(3);
    const path = [
      { x: 20, y: 20 },
      { x: 80, y: 90 },
      { x: 130, y: 95 },
    ];
    const scratched = picture(of);
    for (let i = 0; i < scratched.colour.red.length; i++)
      if (distanceFrom(path, { x: (i % SIZE.width) + 0.5, y: Math.floor(i / SIZE.width) + 0.5 }) < 1.5) scratched.colour.red[i] = 1;
    expect(worst(healed(spot, scratched), picture(of), path, 6)).toBeLessThan(1.5e-3);
  });

  test.each([
    ["at a corner", spotAt({ path: at([1, 1]), from: { x: 0.1, y: 0 } })],
    ["taking from beyond the border", spotAt({ from: { x: 1.5, y: 0 } })],
    ["beside the picture", spotAt({ path: at([-40, -30]) })],
    ["smaller than a pixel", spotAt({ radius: 0.0001 })],
  ])("a spot %s is no trouble", (_, spot) => {
    const of: Light = (x) => [0.2 + 0.002 * x, 0.3, 0.5];
    for (const plane of Object.values(healed(spot, picture(of)).colour)) expect(plane.every(Number.isFinite)).toBe(true);
  });
});

describe("a proposed place to take from", () => {
  const stripes =
    (turn: number, length: number): Light =>
    (x, y) => {
      const light = 0.3 + 0.2 * Math.sign(Math.sin((2 * Math.PI * (x * Math.cos(turn) + y * Math.sin(turn))) / length));
      return [light, light, light * 0.8];
    };
  const edge =
    (turn: number): Light =>
    (x, y) =>
      (x - 60) * Math.cos(turn) + (y - 50) * Math.sin(turn) > 1.5 ? [0.5, 0.55, 0.7] : [0.1, 0.08, 0.05];
  const TEXTURES: [string, Light][] = [
    ["upright stripes", stripes(0, 9)],
    ["slanting stripes", stripes(0.6, 13)],
    ["level planks", stripes(Math.PI / 2, 17)],
    ["an upright edge", edge(0)],
    ["a slanting edge", edge(0.9)],
    ["a level edge", edge(Math.PI / 2)],
    ["bricks", (x, y) => (y % 12 < 2 || (x + (Math.floor(y / 12) % 2) * 10) % 20 < 2 ? [0.5, 0.5, 0.45] : [0.25, 0.1, 0.07])],
    ["waves", (x, y) => [0.3 + 0.1 * Math.sin(x / 4 + 2 * Math.sin(y / 15)), 0.35, 0.4]],
    ["a sky over grain", (x, y) => [0.2 + y / 400 + 0.02 * grain(x, y), 0.3 + y / 500, 0.6]],
    ["a window", (x, y) => (Math.abs(x - 60) < 2 || Math.abs((y % 24) - 2) < 2 ? [0.02, 0.02, 0.02] : [0.6, 0.65, 0.7])],
  ];

  test("is better than a neighbour at random in nine of ten on made textures", () => {
    let [better, tried] = [0, 0];
    let state = 3;
    const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
    for (const [, of] of TEXTURES) {
      const [truth, dusty] = [picture(of), picture(of, dust)];
      const by = proposeSource(dusty, { points: MIDDLE, radius: 6, kind: "heal" })!;
      const errorOf = (from: Point) => {
        const found = healed(spotAt({ from: { x: from.x / LONG, y: from.y / LONG } }), dusty);
        let sum = 0;
        for (let i = 0; i < truth.colour.green.length; i++)
          sum += (found.colour.green[i]! - truth.colour.green[i]!) ** 2 + (found.colour.red[i]! - truth.colour.red[i]!) ** 2;
        return sum;
      };
      const own = errorOf(by);
      for (let k = 0; k < 20; k++) {
        const turn = 2 * Math.PI * random();
        const distance = 6 * (2.6 + 3 * random());
        tried++;
        if (own <= errorOf({ x: Math.round(distance * Math.cos(turn)), y: Math.round(distance * Math.sin(turn)) })) better++;
      }
    }
    expect(better / tried).toBeGreaterThan(0.9);
  });

  test("is the same each time, keeps off the spot, and stays in the picture", () => {
    for (const point of [
      { x: 3, y: 3 },
      { x: 157, y: 117 },
      { x: 80, y: 2 },
    ]) {
      const pixels = picture(stripes(0.6, 13));
      const by = proposeSource(pixels, { points: [point], radius: 6, kind: "heal" })!;
      expect(by).toEqual(proposeSource(pixels, { points: [point], radius: 6, kind: "heal" }));
      expect(Math.hypot(by.x, by.y)).toBeGreaterThan(12);
      const area = areaAround([{ x: point.x + by.x, y: point.y + by.y }], 2, SIZE);
      expect(holds(pixels.area, area)).toBe(true);
      expect(common(area, pixels.area).width).toBeGreaterThan(3);
    }
  });

  test("asked again it is another place each time", () => {
    const pixels = picture(stripes(0.6, 13), dust);
    const tried: Point[] = [];
    for (let k = 0; k < 4; k++) {
      const by = proposeSource(pixels, { points: MIDDLE, radius: 6, kind: "heal" }, tried)!;
      for (const { x, y } of tried) expect(Math.hypot(x - by.x, y - by.y)).toBeGreaterThanOrEqual(9);
      tried.push(by);
    }
  });

  describe("on smooth ground, dust as large as what was drawn", () => {
    /** A sky that grows lighter downwards and to one side, with cloud in it, veins across it, and a little noise. */
    const ground: Light = (x, y) => {
      const cloud = 0.03 * Math.sin(x / 37 + Math.sin(y / 29)) * Math.sin(y / 23);
      const vein = 0.16 * Math.exp(-(((x + 0.4 * y - 70) % 55) ** 2) / 5);
      const light = 0.22 + 0.0011 * y + 0.0008 * x + cloud - vein + 0.003 * grain(x, y);
      return [light, light * 1.05, light * 1.2];
    };
    const truth = picture(ground);
    const tone = ({ colour }: Pixels, i: number) =>
      100 * luminanceToTone(0.229 * colour.red[i]! + 0.692 * colour.green[i]! + 0.079 * colour.blue[i]!);
    /** Places with no vein near. */
    const places = Array.from({ length: 400 }, (_, k) => ({ x: 20.5 + ((k * 37) % 120), y: 18.5 + ((k * 53) % 84) }))
      .filter(({ x, y }) => Math.abs((x + 0.4 * y - 70) % 55) > 14 && Math.abs((x + 0.4 * y - 70) % 55) < 41)
      .slice(0, 30);

    /** How far the mean tone of what was covered is off, for each place, in L*. */
    const errors = (kind: Spot["kind"]) =>
      places
        .map((place, k) => {
          const size = 3 + (k % 4);
          const dusty = picture(ground, { at: place, radius: size });
          const { radius, softness } = reachOf({ size: size / LONG, fade: RESTING_FADE });
          const by = proposeSource(dusty, { points: [place], radius: radius * LONG, kind })!;
          const from = { x: by.x / LONG, y: by.y / LONG };
          const found = healed({ id: "s", kind, path: at([place.x, place.y]), radius, softness, from }, dusty);
          let [sum, n] = [0, 0];
          for (let i = 0; i < truth.colour.red.length; i++) {
            if (Math.hypot((i % SIZE.width) + 0.5 - place.x, Math.floor(i / SIZE.width) + 0.5 - place.y) > size) continue;
            sum += tone(found, i) - tone(truth, i);
            n++;
          }
          return Math.abs(sum / n);
        })
        .toSorted((a, b) => a - b);

    test.each([
      ["heal", 0.5, 1.5],
      ["clone", 1, 3],
    ] as const)("to %s leaves no disc: within %d L* in the median, %d at the worst", (kind, median, most) => {
      const found = errors(kind);
      expect(found.length).toBe(30);
      expect(found[15]).toBeLessThan(median);
      expect(found.at(-1)).toBeLessThan(most);
    });
  });

  test("a drawn circle is covered whole, and fades beyond it", () => {
    const of: Light = (x, y) => [0.3 + 0.2 * grain(x, y), 0.2, 0.4];
    const size = 5;
    const spot = spotAt({ kind: "clone", ...reachOf({ size: size / LONG, fade: 0.4 }) });
    const [before, after] = [picture(of), healed(spot, picture(of))];
    for (let i = 0; i < before.colour.red.length; i++) {
      const away = Math.hypot((i % SIZE.width) + 0.5 - 60, Math.floor(i / SIZE.width) + 0.5 - 50);
      if (away <= size) expect(Math.abs(after.colour.red[i]! - before.colour.red[i + 25]!)).toBeLessThan(1e-6);
      if (away > 1.4 * size) expect(after.colour.red[i]).toBe(before.colour.red[i]);
    }
    for (const drawn of [
      { size: 0.01, fade: 0 },
      { size: 0.004, fade: 0.3 },
      { size: 0.02, fade: 1 },
    ]) {
      const { size: back, fade } = drawnOf(reachOf(drawn));
      expect(back).toBeCloseTo(drawn.size, 9);
      expect(fade).toBeCloseTo(drawn.fade, 9);
    }
  });

  test("where there is no room, none is proposed", () => {
    const pixels = picture(() => [0.3, 0.3, 0.3]);
    expect(proposeSource(pixels, { points: MIDDLE, radius: 80, kind: "heal" })).toBeUndefined();
  });
});
