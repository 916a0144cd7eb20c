import { CHANNELS, type Channel } from "@/core/mix/weights";
import type { BandMachine } from "../machine/bandMachine";
import { CHROMA_PLANES, type ChromaPlanes, type OwnChroma } from "../machine/chromaBand";
import type { SourcePlace } from "../stageTypes";
import type { BandPlace } from "../machine/surroundingsBand";
import { toMake, toRead, type Strip } from "./strips";
import type { Band } from "./works";

/** Planes by name, as strips. */
export type StripsOf<P> = { readonly [K in keyof P]: Strip };
export type StripsOfColour = StripsOf<Record<Channel, Float32Array>>;

/** Tones, and the colour on them where there is any. */
export interface StripsOfTones {
  tone: Strip;
  chroma: StripsOf<ChromaPlanes> | undefined;
}

/** Planes to be read, each as a strip. */
export function allToRead<P extends { [K in keyof P]: Float32Array }>(planes: P): StripsOf<P> {
  return strips(planes, toRead);
}

/** The same to be made. */
export function allToMake<P extends { [K in keyof P]: Float32Array }>(planes: P): StripsOf<P> {
  return strips(planes, toMake);
}

function strips<P extends object>(planes: P, strip: (plane: Float32Array) => Strip): StripsOf<P> {
  return Object.fromEntries(Object.entries(planes).map(([name, plane]) => [name, strip(plane as Float32Array)])) as StripsOf<P>;
}

/** Puts what is mixed into a machine. */
export function putColour(machine: BandMachine, colour: StripsOfColour, { first, end }: Band): void {
  for (const name of CHANNELS) machine.put(name, colour[name].strip, first, end);
}

/** Puts tones into a machine, and the colour on them; without any, none, where some is laid later. */
export function putTones(machine: BandMachine, { tone, chroma }: StripsOfTones, { first, end }: Band, laysColour: boolean): void {
  machine.put("tone", tone.strip, first, end);
  if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name].strip, first, end);
  else if (laysColour) machine.clearChroma();
}

/** Takes tones out of a machine, and the colour on them where it is kept. */
export function takeTones(machine: BandMachine, { tone, chroma }: StripsOfTones, { first }: Band): void {
  machine.take("tone", tone.strip, first);
  if (chroma) for (const name of CHROMA_PLANES) machine.take(name, chroma[name].strip, first);
}

/** Where a band lies in the whole picture. */
export function placeOf({ x, y, width, whole }: SourcePlace & { width: number }, band: Band): BandPlace {
  return { x, y: y + band.y, width, whole };
}

/** A colour's own a, b and root, as they lie in their planes. */
export const ownOf = ({ a, b, root }: StripsOf<OwnChroma>): OwnChroma => ({ a: a.strip, b: b.strip, root: root.strip });
