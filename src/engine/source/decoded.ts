import { IDENTITY3 } from "@/core/colour/matrix3";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import type { Grain } from "@/core/grain/grain";
import { emptyPlanes, type Planes } from "@/core/kernels/planes";
import { CHANNELS, LUMINANCE_WEIGHTS } from "@/core/mix/weights";
import { areaReduceRows, type Size } from "@/core/spatial/areaReduce";
import { BandMachine } from "../machine/bandMachine";
import { emptyGrain, GrainReducer, putGrain, putPlanes, throughMatrix, unpackGrain, type Part } from "../machine/grainMachine";

/** A level, or a part of one, in linear P3, and what inside each pixel it was reduced from. */
export interface Decoded {
  colour: Planes;
  grain: Grain | undefined;
}

/** Levels as they are stored: interleaved RGB, row after row, with their packed grain where they were reduced. */
export interface StoredLevels {
  levels: Uint8Array | Uint16Array;
  space: SourceSpace;
  grain?: Uint32Array | undefined;
}

/** Levels of so many pixels in linear P3, in which colours outside it lie outside 0–1, with their grain taken apart. */
export function decodeLevels({ levels, space, grain }: StoredLevels, { width, height }: Size): Decoded {
  const decoder = new BandMachine(width, 1);
  decoder.setSpace(grain ? { ...space, toP3: IDENTITY3 } : space, levels instanceof Uint8Array ? 8 : 16);
  const colour = emptyPlanes(width * height);
  for (let from = 0; from < colour.red.length; from += width) {
    decoder.decode(levels.subarray(3 * from, 3 * (from + width)));
    for (const name of CHANNELS) decoder.take(name, colour[name], from);
  }
  if (!grain) return { colour, grain: undefined };
  const own = unpackGrain(colour, grain);
  for (const planes of own ? [own.darker, own.lighter, colour] : [colour]) throughMatrix(planes, space.toP3);
  return { colour, grain: own };
}

/** The same smaller, area-averaged in linear light; what lies inside its pixels is their grain. */
export function reduceDecoded({ colour, grain }: Decoded, from: Size, to: Size): Decoded {
  const reduced = emptyPlanes(to.width * to.height);
  const own = emptyGrain(reduced.red.length);
  new GrainReducer(from, to, LUMINANCE_WEIGHTS).forRows(colour, grain, 0, 0, to.height, (y, row) => {
    putPlanes(reduced, y * to.width, row.colour);
    putGrain(own, y * to.width, row.grain);
  });
  return { colour: reduced, grain: own.share.some((share) => share > 0) ? own : undefined };
}

/** The same smaller, without what lies inside its pixels. */
export function reducePlainly({ colour }: Decoded, from: Size, to: Size): Decoded {
  const reduced = (plane: Float32Array) => areaReduceRows(plane, 0, from, to, 0, to.height);
  return { colour: { red: reduced(colour.red), green: reduced(colour.green), blue: reduced(colour.blue) }, grain: undefined };
}

/** The very same pixels in planes that are no others'. */
export function viewOf({ colour, grain }: Decoded): Decoded {
  const views = ({ red, green, blue }: Planes): Planes => ({ red: red.subarray(), green: green.subarray(), blue: blue.subarray() });
  return {
    colour: views(colour),
    grain: grain && { darker: views(grain.darker), lighter: views(grain.lighter), share: grain.share.subarray() },
  };
}

/** A part of the pixels; where they have no parts, each is the whole. */
export function colourOf({ colour, grain }: Decoded, part: Part): Planes {
  return (part && grain?.[part]) ?? colour;
}

/** Colour an amount of the way from one to another of the same picture; the share of their parts is the first one's. */
export function betweenDecoded(a: Decoded, b: Decoded, amount: number): Decoded {
  const between = (part: Part): Planes => betweenPlanes(colourOf(a, part), colourOf(b, part), amount);
  const grain = a.grain && { darker: between("darker"), lighter: between("lighter"), share: a.grain.share };
  return { colour: between(undefined), grain };
}

/** Planes an amount of the way from one to another. */
export function betweenPlanes(a: Planes, b: Planes, amount: number): Planes {
  const out = emptyPlanes(a.red.length);
  for (const name of CHANNELS) {
    const [from, to, plane] = [a[name], b[name], out[name]];
    for (let i = 0; i < plane.length; i++) plane[i] = from[i]! + amount * (to[i]! - from[i]!);
  }
  return out;
}
