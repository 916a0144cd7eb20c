import { CHANNELS, type Channel } from "@/core/mix/weights";
import type { BandMachine } from "../machine/bandMachine";
import { CHROMA_PLANES, type ChromaPlanes, type OwnChroma } from "../machine/chromaBand";
import type { SourcePlace, BandPlace } from "../machine/surroundingsBand";
import { output, input, type TaskPlane } from "./taskPlanes";
import type { Band } from "./tasks";

/** Planes by name, as planes. */
export type TaskPlanes<P> = { readonly [K in keyof P]: TaskPlane };
export type TaskColour = TaskPlanes<Record<Channel, Float32Array>>;

/** Tones, and the colour on them where there is any. */
export interface TaskTones {
  tone: TaskPlane;
  chroma: TaskPlanes<ChromaPlanes> | undefined;
}

/** Planes to be read, each as a plane. */
export function inputs<P extends { [K in keyof P]: Float32Array }>(planes: P): TaskPlanes<P> {
  return taskPlanes(planes, input);
}

/** The same to be made. */
export function outputs<P extends { [K in keyof P]: Float32Array }>(planes: P): TaskPlanes<P> {
  return taskPlanes(planes, output);
}

function taskPlanes<P extends object>(planes: P, make: (plane: Float32Array) => TaskPlane): TaskPlanes<P> {
  return Object.fromEntries(Object.entries(planes).map(([name, plane]) => [name, make(plane as Float32Array)])) as TaskPlanes<P>;
}

/** Puts what is mixed into a machine. */
export function putColour(machine: BandMachine, colour: TaskColour, { first, end }: Band): void {
  for (const name of CHANNELS) machine.put(name, colour[name].plane, first, end);
}

/** Puts tones into a machine, and the colour on them; without any, none, where some is laid later. */
export function putTones(machine: BandMachine, { tone, chroma }: TaskTones, { first, end }: Band, laysColour: boolean): void {
  machine.put("tone", tone.plane, first, end);
  if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name].plane, first, end);
  else if (laysColour) machine.clearChroma();
}

/** Takes tones out of a machine, and the colour on them where it is kept. */
export function takeTones(machine: BandMachine, { tone, chroma }: TaskTones, { first }: Band): void {
  machine.take("tone", tone.plane, first);
  if (chroma) for (const name of CHROMA_PLANES) machine.take(name, chroma[name].plane, first);
}

/** Where a band lies in the whole picture. */
export function placeOf({ x, y, width, whole }: SourcePlace & { width: number }, band: Band): BandPlace {
  return { x, y: y + band.y, width, whole };
}

/** A colour's own a, b and root, as they lie in their planes. */
export const ownOf = ({ a, b, root }: TaskPlanes<OwnChroma>): OwnChroma => ({ a: a.plane, b: b.plane, root: root.plane });
