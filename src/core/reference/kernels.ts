import { exposedLuminance } from "../colour/exposedLuminance";
import { CHROMA_FADE, FLOOR_KNEE, SHOULDER_FROM } from "../kernels/constants";
import { Planes } from "../kernels/planes";
import { CELL_FLOATS } from "../kernels/kernelHeap";
import { atStrength } from "../blend/atStrength";
import { blend, type BlendMode } from "../blend/blend";
import { luminanceToTone, toneToLuminance } from "../colour/lstar";
import { apply3, IDENTITY3, invert3, type Matrix3, type Vector3 } from "../colour/matrix3";
import { LMS_TO_LAB, linearP3ToOklab, oklabToLch, P3_TO_LMS } from "../colour/oklab";
import { P3_LUMINANCE } from "../colour/primaries";
import type { Weights } from "../mix/weights";
import { readTable, knotsOf } from "../kernels/pairTable";
import type { SeparateStep } from "../steps/colourStep";
import type { StopsRows } from "../steps/orderedStops";

// The kernels in plain TypeScript: what they compute, without how. Used by the tests, which hold
// the WebAssembly to these, and to read.

/**
 * Stored RGB levels to linear Display P3; colours outside it lie outside 0–1.
 *
 * Shape   3·n interleaved levels in; three planes of n out. `curves` are tables of all levels.
 */
export function decode(
  levels: Uint8Array | Uint16Array,
  curves: readonly [Float32Array, Float32Array, Float32Array],
  toP3: Matrix3,
): Planes {
  const n = levels.length / 3;
  const planes = { red: new Float32Array(n), green: new Float32Array(n), blue: new Float32Array(n) };
  for (let i = 0; i < n; i++) {
    const [r, g, b] = apply3(toP3, [curves[0][levels[3 * i]!]!, curves[1][levels[3 * i + 1]!]!, curves[2][levels[3 * i + 2]!]!]);
    planes.red[i] = r;
    planes.green[i] = g;
    planes.blue[i] = b;
  }
  return planes;
}

/**
 * The mixed luminance of each pixel: Σ weight · channel, bent where it would leave 0–1.
 *
 * Negative parts take light away from what the positive ones gave (P). Down to a quarter of P the
 * result is the plain sum; below, it bends smoothly and approaches black without reaching it. A colour whose sum would pass
 * white at its brightest, a channel of the source full, bends from a half on so that it reaches white just there. Both bends
 * depend only on the colour, not on how bright it is, and weights that sum to 1 leave neutrals exact.
 * Source  our choice: docs/decisions/0002-mix.md.
 */
export function mixWeights({ red, green, blue }: Planes, weights: Weights, fromP3: Matrix3 = IDENTITY3): Float32Array {
  return red.map((r, i) => {
    const parts = [weights.red * r, weights.green * green[i]!, weights.blue * blue[i]!];
    const plus = parts.reduce((sum, part) => sum + Math.max(part, 0), 0);
    const sum = parts.reduce((total, part) => total + part, 0);
    if (plus <= 0) return 0;
    const kept = sum / plus;
    const y = kept >= FLOOR_KNEE ? sum : (plus * FLOOR_KNEE ** 2) / (2 * FLOOR_KNEE - kept);
    const lit = Math.min(Math.max(...apply3(fromP3, [r, green[i]!, blue[i]!])), 1);
    const brightest = y / lit;
    if (!(brightest > 1) || y <= SHOULDER_FROM) return clamp01(y);
    const [above, top, room] = [y - SHOULDER_FROM, brightest - SHOULDER_FROM, 1 - SHOULDER_FROM];
    return clamp01(SHOULDER_FROM + above / (1 + (above * (top / room - 1)) / top));
  });
}

/** OKLCH hue in turns 0–1, and how far the hue response applies (0 neutral … 1 coloured), of each pixel. */
export function hueFade({ red, green, blue }: Planes): { hue: Float32Array; fade: Float32Array } {
  const hue = new Float32Array(red.length);
  const fade = new Float32Array(red.length);
  for (let i = 0; i < red.length; i++) {
    const { chroma, hueDeg } = oklabToLch(linearP3ToOklab([red[i]!, green[i]!, blue[i]!]));
    const u = clamp01((chroma - CHROMA_FADE.from) / (CHROMA_FADE.to - CHROMA_FADE.from));
    hue[i] = hueDeg / 360;
    fade[i] = u * u * (3 - 2 * u);
  }
  return { hue, fade };
}

/**
 * Lightens or darkens luminance by E stops without reaching 0 or 1: Y' = kY ∕ (1 + (k − 1)Y), k = 2^E,
 * with E = table(hue) · fade. Slope k in the deepest tones; −E undoes it.
 */
export function hueGain(y: Float32Array, hue: Float32Array, fade: Float32Array, table: Float32Array): Float32Array {
  return y.map((v, i) => {
    const k = 2 ** (readTable(table, hue[i]!) * fade[i]!);
    return (k * v) / (1 + (k - 1) * v);
  });
}

/** table(x) for each x of 0–1. */
export function lookUp(x: Float32Array, table: Float32Array): Float32Array {
  return x.map((v) => readTable(table, v));
}

/** t + table(t) for each tone t. */
export function addLookedUp(tone: Float32Array, table: Float32Array): Float32Array {
  return tone.map((t) => t + readTable(table, t));
}

/** t + mask · table(t) for each tone t. */
export function addLookedUpBy(tone: Float32Array, mask: Float32Array, table: Float32Array): Float32Array {
  return tone.map((t, i) => t + mask[i]! * readTable(table, t));
}

/** From `below` towards `above` by an amount; over 1 beyond it, softly where the scale ends. */
export function mixBy(below: Float32Array, above: Float32Array, amount: Float32Array): Float32Array {
  return below.map((v, i) => clamp01(atStrength(v, above[i]!, amount[i]!)));
}

/** plane · scale + offset. */
export function scaleAdd(plane: Float32Array, scale: number, offset: number): Float32Array {
  return plane.map((v) => v * scale + offset);
}

/** The stops that reach each tone, of those given to its place: read between rows. */
export function throughRows(stops: Float32Array, tone: Float32Array, { tables, knots, side, most }: StopsRows): Float32Array {
  const length = 2 * (knots + 1);
  const rowAt = (row: number, t: number) => readTable(tables.subarray(row * length, (row + 1) * length), t);
  return stops.map((given, i) => {
    const row = Math.min(Math.max((given / most) * side + side, 0), 2 * side);
    const lower = Math.min(Math.floor(row), 2 * side - 1);
    const [a, b] = [rowAt(lower, tone[i]!), rowAt(lower + 1, tone[i]!)];
    return a + (row - lower) * (b - a);
  });
}

/** plane + by · table(t). */
export function addTableBy(plane: Float32Array, by: Float32Array, tone: Float32Array, table: Float32Array): Float32Array {
  return plane.map((v, i) => v + by[i]! * readTable(table, tone[i]!));
}

/** a + b. */
export function add(a: Float32Array, b: Float32Array): Float32Array {
  return a.map((v, i) => v + b[i]!);
}

/** a · b. */
export function multiply(a: Float32Array, b: Float32Array): Float32Array {
  return a.map((v, i) => v * b[i]!);
}

/** A pair table of values, less others. */
export function pairsOf(values: Float32Array, less: Float32Array | undefined): Float32Array {
  const at = (k: number) => Math.fround(values[k]! - (less?.[k] ?? 0));
  return Float32Array.from({ length: 2 * values.length }, (_, i) => {
    const k = i >> 1;
    return i % 2 === 0 ? at(k) : k + 1 < values.length ? at(k + 1) - at(k) : 0;
  });
}

/** So much of the way from one plane to another. */
export function between(a: Float32Array, b: Float32Array, share: Float32Array): Float32Array {
  return a.map((first, i) => first + share[i]! * (b[i]! - first));
}

/** The tone of the light of two, so much of it of the second. */
export function meanLight(a: Float32Array, b: Float32Array, share: Float32Array): Float32Array {
  return a.map((t, i) => luminanceToTone(toneToLuminance(t) + share[i]! * (toneToLuminance(b[i]!) - toneToLuminance(t))));
}

/**
 * Levels 0–255 from a table in levels, with offsets from a row repeated along x; near black and white an offset carries no further than to
 * them.
 */
export function grey8(tone: Float32Array, table: Float32Array, ditherRow: Float32Array): Uint8Array {
  return Uint8Array.from(tone, (t, i) => {
    const level = readTable(table, t);
    const most = Math.min(level, 255 - level) + 0.498;
    const offset = Math.min(Math.max(ditherRow[i % ditherRow.length]!, -most), most);
    return Math.round(Math.min(Math.max(level + offset, 0), 255));
  });
}

/** Levels 0–65535 from a table in levels, to the nearest. */
export function grey16(tone: Float32Array, table: Float32Array): Uint16Array {
  return Uint16Array.from(tone, (t) => Math.round(Math.min(Math.max(readTable(table, t), 0), 65535)));
}

/** Display P3 pixels, opaque, from linear planes; the table encodes linear 0–1 to levels 0–255. */
export function colourToRgba({ red, green, blue }: Planes, table: Float32Array): Uint8Array {
  const out = new Uint8Array(red.length * 4);
  for (let i = 0; i < red.length; i++) {
    const pixel = [red, green, blue].map((plane) => Math.round(readTable(table, plane[i]!)));
    out.set([...pixel, 255], 4 * i);
  }
  return out;
}

/** How many values of 0–1 fall in each of `bins` equal bins; 1 counts in the last. */
export function histogram(tone: Float32Array, bins: number): Uint32Array {
  const counts = new Uint32Array(bins);
  for (const t of tone) counts[Math.min(Math.max(Math.floor(Math.fround(t * bins)), 0), bins - 1)]!++;
  return counts;
}

/** Values read at `from` + i · `step` knots of a table, held at its ends. */
export function sampleRow(table: Float32Array, n: number, from: number, step: number): Float32Array {
  const knots = knotsOf(table);
  return Float32Array.from({ length: n }, (_, i) => readTable(table, (from + i * step) / knots));
}

/** slope · tone + offset, kept within 0–1. */
export function guided(tone: Float32Array, slope: Float32Array, offset: Float32Array): Float32Array {
  return tone.map((t, i) => clamp01(slope[i]! * t + offset[i]!));
}

/** A row a part of the way between two rows of cells in slices, as pairs of a value and the step to the next cell's. */
export function pairRows(a: Float32Array, b: Float32Array, part: number): Float32Array {
  const values = Float64Array.from(a, (v, i) => v + part * (b[i]! - v));
  const pairs = new Float32Array(2 * a.length);
  values.forEach((value, i) => {
    pairs[2 * i] = value;
    pairs[2 * i + 1] = (values[i + CELL_FLOATS] ?? value) - value;
  });
  return pairs;
}

/** Tones' surroundings read between the cells of such a row, as in sampleRow, and between the slices their own tones lie between. */
export function sampleSlices(pairs: Float32Array, slices: number, tone: Float32Array, from: number, step: number): Float32Array {
  const last = pairs.length / 2 / CELL_FLOATS - 1;
  return tone.map((t, i) => {
    const x = Math.min(Math.max(from + i * step, 0), last);
    const slice = clamp01(t) * (slices - 1);
    const lower = Math.min(Math.floor(slice), slices - 2);
    const read = (k: number) => {
      const at = 2 * (CELL_FLOATS * Math.floor(x) + k);
      return pairs[at]! + (x - Math.floor(x)) * pairs[at + 1]!;
    };
    return read(lower) + (slice - lower) * (read(lower + 1) - read(lower));
  });
}

/** plane · table(t). */
export function scaleLookedUp(plane: Float32Array, tone: Float32Array, table: Float32Array): Float32Array {
  return plane.map((v, i) => v * readTable(table, tone[i]!));
}

/** plane + table(t). */
export function addTable(plane: Float32Array, tone: Float32Array, table: Float32Array): Float32Array {
  return plane.map((v, i) => v + readTable(table, tone[i]!));
}

/** Tones exposed by stops without reaching black or white: Y' = kY ∕ (1 + (k − 1)Y), k = 2^stops. −stops undoes it. */
export function exposeBy(tone: Float32Array, stops: Float32Array, onPaper = false): Float32Array {
  return tone.map((t, i) => luminanceToTone(exposedLuminance(toneToLuminance(t), stops[i]!, onPaper)));
}

/** One plane laid over another. */
export function blendPlanes(below: Float32Array, above: Float32Array, mode: BlendMode): Float32Array {
  return below.map((t, i) => clamp01(blend(mode, t, above[i]!)));
}

function clamp01(v: number): number {
  return Math.min(Math.max(v, 0), 1);
}

/**
 * Colour as a separation leaves it: a and b of OKLab along a line as far as they are coloured, then turned and scaled by hue; the luminance
 * of before. Nothing is held within a source.
 */
export function separate({ red, green, blue }: Planes, { along, across, parting }: SeparateStep): Planes {
  return mapColour({ red, green, blue }, (colour) => {
    const [L, a, b] = linearP3ToOklab(colour);
    const u = clamp01((Math.hypot(a, b) - CHROMA_FADE.from) / (CHROMA_FADE.to - CHROMA_FADE.from));
    const by = u * u * (3 - 2 * u) * (parting.fromA * a + parting.fromB * b + parting.offset);
    const [p, q] = [a + by * parting.alongA, b + by * parting.alongB];
    const hue = oklabToLch([L, p, q]).hueDeg / 360;
    const [c, s] = [readTable(along, hue), readTable(across, hue)];
    const [l, m, t] = apply3(invert3(LMS_TO_LAB), [L, c * p - s * q, s * p + c * q]);
    const made = apply3(invert3(P3_TO_LMS), [l ** 3, m ** 3, t ** 3]);
    const scale = luminanceOf(colour) / luminanceOf(made);
    return [made[0] * scale, made[1] * scale, made[2] * scale];
  });
}

/** Colour lit by stops: its luminance kept between black and white, its channels in proportion. Nothing is held within a source. */
export function lightColour(colour: Planes, stops: Float32Array): Planes {
  return mapColour(colour, ([r, g, b], i) => {
    const k = 2 ** stops[i]!;
    const gain = k / (1 + (k - 1) * clamp01(luminanceOf([r, g, b])));
    return [r * gain, g * gain, b * gain];
  });
}

function mapColour({ red, green, blue }: Planes, change: (colour: Vector3, i: number) => Vector3): Planes {
  const out = { red: red.slice(), green: green.slice(), blue: blue.slice() };
  for (let i = 0; i < red.length; i++) [out.red[i], out.green[i], out.blue[i]] = change([red[i]!, green[i]!, blue[i]!], i);
  return out;
}

function luminanceOf([r, g, b]: Vector3): number {
  return P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b;
}
