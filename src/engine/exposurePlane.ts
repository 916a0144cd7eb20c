import { strokesOf, type ExposureSettings, type ExposureStroke } from "@/core/exposure/exposure";

/** Lays strokes out, or knows them already. */
export type LayMap = (strokes: readonly ExposureStroke[], burns: boolean) => Float32Array;

/**
 * What is painted, in stops: lights less darks, each by its strength. Undefined where nothing is. `lay` gives planes of their own
 * for lights and darks.
 */
export function exposurePlane(settings: ExposureSettings, lay: LayMap): Float32Array | undefined {
  const lights = mapOf(settings, false, lay);
  const darks = mapOf(settings, true, lay);
  const any = lights ?? darks;
  if (!any) return undefined;
  const { dodge, burn } = settings;
  const out = new Float32Array(any.length);
  if (lights && darks) for (let i = 0; i < out.length; i++) out[i] = dodge * lights[i]! - burn * darks[i]!;
  else if (lights) for (let i = 0; i < out.length; i++) out[i] = dodge * lights[i]!;
  else for (let i = 0; i < out.length; i++) out[i] = -burn * darks![i]!;
  return out;
}

function mapOf(settings: ExposureSettings, burns: boolean, lay: LayMap): Float32Array | undefined {
  const strokes = strokesOf(settings, burns);
  return strokes.some(({ erase }) => !erase) ? lay(strokes, burns) : undefined;
}
