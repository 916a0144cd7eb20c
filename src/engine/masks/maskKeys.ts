import { isBlurred, isRepairedOnTheWay, type Gate } from "@/core/gate/gate";
import type { CompiledColour, CompiledMask } from "@/core/plan/compilePlan";
import { LEAST_FIT, LEAST_SOFTEN, type LikenessShape, type Region } from "@/core/region/region";
import { shapeKey } from "@/core/region/shapeKey";
import type { ToneBase } from "@/core/spatial/toneBase";

/** Parts of masks that need the whole picture, held small, by their key. */
export type MaskBases = ReadonlyMap<string, ToneBase>;

/** The key of a likeness's base: what it was touched at and how much it takes, wherever it stands. */
export function likenessKey({ touched, not, tolerance, connected, edges, apart }: LikenessShape): string {
  return `likeness ${JSON.stringify([touched, not, tolerance, connected, edges, apart])}`;
}

/** The key of a region's own base; undefined where its shapes tell all. */
export function regionBaseKey({ shapes, soften, fit }: Region): string | undefined {
  return soften >= LEAST_SOFTEN || fit >= LEAST_FIT ? `region ${shapes.map(shapeKey).join(" ")} ${soften} ${fit}` : undefined;
}

/** The key of a blurred gate's base; undefined where it is not blurred, or reads the entering tone and is gathered on the way. */
export function gateBaseKey(gate: Gate): string | undefined {
  return isBlurred(gate) && gate.source !== "entering" ? `gate ${JSON.stringify({ ...gate, hue: null, repair: [] })}` : undefined;
}

/** Whether a mask, or that of its set, has parts that only the whole picture tells. */
export function needsBases({ region, gate, within }: CompiledMask): boolean {
  if (within && needsBases(within)) return true;
  if (region && (regionBaseKey(region) || region.shapes.some(({ kind }) => kind === "likeness"))) return true;
  return !!gate && !!gateBaseKey(gate);
}

/** A mask, and that of its set. */
export function withItsSet(mask: CompiledMask): CompiledMask[] {
  return mask.within ? [mask, mask.within] : [mask];
}

/** Whether a mask looks at the picture, not at places alone. */
export function looksAtPicture(mask: CompiledMask): boolean {
  return needsBases(mask) || withItsSet(mask).some(({ gate }) => gate !== undefined);
}

/** Whether a gate is read from the entering tone on the way: see `isRepairedOnTheWay`. */
export function isReadOnTheWay(gate: Gate | undefined): gate is Gate {
  return !!gate && isRepairedOnTheWay(gate);
}

/** Whether a gate's base is gathered from the tone that enters its pass, on the way through the plan. */
export function isGatheredOnTheWay(gate: Gate | undefined): gate is Gate {
  return !!gate && gate.source === "entering" && isBlurred(gate);
}

/** Whether a pass before the mix needs something of the whole picture. */
export function colourLooksAtWhole({ step, mask }: CompiledColour): boolean {
  return (step.kind === "light" && step.around !== undefined) || (!!mask && needsBases(mask));
}
