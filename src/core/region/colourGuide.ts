import { LMS_TO_LAB, P3_TO_LMS } from "../colour/oklab";
import { KernelHeap } from "../kernels/kernelHeap";
import type { ColourGuide } from "../spatial/toneBase";
import { LIGHTNESS_WEIGHT, MOST_GUIDING } from "./likeness";

/** Pixels worked on at a time. */
const AT_ONCE = 16384;

let made: ReturnType<typeof makeHeap> | undefined;

function makeHeap() {
  const heap = new KernelHeap(4 * (4 * AT_ONCE + 3 * MOST_GUIDING + 18) + 1024);
  const [red, green, blue, out] = [0, 1, 2, 3].map(() => heap.reserve(4 * AT_ONCE)) as [number, number, number, number];
  const constants = heap.reserve(4 * 18);
  heap.f32(constants, 18).set([...P3_TO_LMS, ...LMS_TO_LAB]);
  return { heap, red, green, blue, out, constants, colours: heap.reserve(12 * MOST_GUIDING) };
}

/**
 * How far each place is from a guide's colours, 0–1: 1 from its reach on, everywhere where it has none. It tells what is like them from all
 * else where a tone may not.
 *
 * Shape   linear P3, a value for each pixel.
 */
export function distanceFrom(colour: Record<"red" | "green" | "blue", Float32Array>, { colours, reach }: ColourGuide): Float32Array {
  const { heap, red, green, blue, out, constants, ...at } = (made ??= makeHeap());
  const { length } = colour.red;
  const distances = new Float32Array(length);
  const told = colours.slice(0, MOST_GUIDING);
  heap.f32(at.colours, 3 * told.length).set(told.flat());
  for (let from = 0; from < length; from += AT_ONCE) {
    const to = Math.min(from + AT_ONCE, length);
    const put = (place: number, plane: Float32Array) => heap.f32(place, to - from).set(plane.subarray(from, to));
    put(red, colour.red);
    put(green, colour.green);
    put(blue, colour.blue);
    heap.run.distanceFrom(red, green, blue, out, (to - from + 3) & ~3, constants, at.colours, told.length, LIGHTNESS_WEIGHT, reach);
    distances.set(heap.f32(out, to - from), from);
  }
  return distances;
}
