import { strokesOf, type ExposureSettings, type ExposureStroke } from "@/core/exposure/exposure";

/** Lays strokes out, or knows them already. */
export type LayMap = (strokes: readonly ExposureStroke[], burns: boolean) => Float32Array;

/** What is painted, in stops: lights less darks, each by its strength. Undefined where nothing is. */
export function exposurePlane(settings: ExposureSettings, lay: LayMap): Float32Array | undefined {
  const { dodge, burn } = settings;
  const [lights, darks] = [false, true].map((burns) => strokesOf(settings, burns));
  const [isLit, isDarkened] = [lights, darks].map((strokes) => strokes!.some(({ erase }) => !erase));
  if (!isLit && !isDarkened) return undefined;
  // Laid one after the other: what is laid out is good only until the next is asked for.
  const plane = isLit ? lay(lights!, false).slice() : undefined;
  if (plane) for (let i = 0; i < plane.length; i++) plane[i] = dodge * plane[i]!;
  if (!isDarkened) return plane;
  const dark = lay(darks!, true);
  const out = plane ?? new Float32Array(dark.length);
  for (let i = 0; i < out.length; i++) out[i] = out[i]! - burn * dark[i]!;
  return out;
}
