import type { Planes } from "@/core/kernels/planes";
import { layStrokes } from "@/core/brush/layStrokes";
import { luminanceToTone } from "@/core/colour/lstar";
import { gateShare, hueShare, weightsRead, type Gate } from "@/core/gate/gate";
import { readTable, pairTable } from "@/core/kernels/pairTable";
import type { CompiledMask } from "@/core/plan/compilePlan";
import { combineShapes, finishRegion, type LaidShape } from "@/core/region/combineShapes";
import type { Grid } from "@/core/spatial/grid";
import { brushGoal, type DrawnShape } from "@/core/region/rasterShape";
import { distanceFrom } from "@/core/region/colourGuide";
import type { Region, Shape } from "@/core/region/region";
import { softenedShape } from "@/core/region/softenedShape";
import { layBase } from "@/core/spatial/layBase";
import { LAST_ZONE } from "@/core/zones/zone";
import { gateBaseKey, likenessKey, regionBaseKey, type MaskBases } from "./maskKeys";
import type { TonePlane } from "@/core/units";

/** The part of a picture a mask is laid over: linear colour, and what is only made when it is asked for. */
export interface MaskPicture extends Planes {
  /** The mixed tone. */
  mixed(): TonePlane;
  /** Hue in turns, and how far a place is coloured, 0–1. */
  hues(): { hue: Float32Array; fade: Float32Array };
}

/** Knots of the tables gates are read through. */
const GATE_KNOTS = 1024;
const HUE_KNOTS = 720;
const LIGHT_KNOTS = 4096;
const LIGHT_TO_TONE = pairTable(LIGHT_KNOTS, luminanceToTone);

/**
 * How far a pass acts on each pixel of a part of a picture, 0–1: region times gate, without the mask of its set. A gate blurred on the
 * entering tone is left out; its base is laid over the mask on the way.
 *
 * Shape   a value for each pixel of the grid. `shapePlane` lays out a drawn shape, or knows it already.
 */
export function maskPlane(
  { region, gate }: Pick<CompiledMask, "region" | "gate">,
  grid: Grid,
  picture: MaskPicture,
  bases: MaskBases,
  shapePlane: LaidShape<DrawnShape>,
): Float32Array {
  const plane = region ? regionPlane(region, grid, picture, bases, shapePlane) : new Float32Array(grid.width * grid.height).fill(1);
  if (gate) applyGate(plane, gate, grid, picture, bases);
  return plane;
}

function regionPlane(
  region: Region,
  grid: Grid,
  picture: MaskPicture,
  bases: MaskBases,
  shapePlane: Parameters<typeof maskPlane>[4],
): Float32Array {
  const ownKey = regionBaseKey(region);
  const lay = (key: string) => {
    const base = bases.get(key)!;
    return layBase(base, grid, base.slope && (base.likeTo ? distanceFrom(picture, base.likeTo) : picture.mixed()));
  };
  const planeOf = (shape: Shape, own: boolean) =>
    shape.kind === "likeness" ? lay(likenessKey(shape)) : shapePlane(softenedShape(shape, region.soften), own);
  const plane = ownKey ? lay(ownKey) : combineShapes(region.shapes, planeOf, grid.width * grid.height);
  finishRegion(plane, region);
  return plane;
}

/**
 * What the strokes on a gate that is read or gathered on the way let through besides, whatever the tone: the mask there is
 * maskPlane · gate + this. Undefined where there are none.
 */
export function repairPlane(...[mask, grid, picture, bases, shapePlane]: Parameters<typeof maskPlane>): Float32Array | undefined {
  const { region, gate } = mask;
  if (!gate || gate.source !== "entering" || gate.repair.length === 0) return undefined;
  const added = new Float32Array(grid.width * grid.height);
  layStrokes(added, grid, gate.repair, brushGoal);
  if (region) multiplyBy(added, regionPlane(region, grid, picture, bases, shapePlane));
  return added;
}

function applyGate(plane: Float32Array, gate: Gate, grid: Grid, picture: MaskPicture, bases: MaskBases): void {
  const through = new Float32Array(plane.length).fill(1);
  const blurKey = gateBaseKey(gate);
  if (blurKey) multiplyBy(through, layBase(bases.get(blurKey)!, grid, undefined));
  else if (gate.source !== "entering") {
    const table = gateTableOf(gate);
    const tone = gateTone(gate, picture);
    for (let i = 0; i < through.length; i++) through[i] = readTable(table, tone[i]!);
  }
  limitHue(through, gate, picture);
  // What is read on the way is not known yet: the strokes take their share of it here, and add theirs in the end.
  layStrokes(through, grid, gate.repair, gate.source === "entering" ? () => 0 : brushGoal);
  multiplyBy(plane, through);
}

function limitHue(plane: Float32Array, gate: Gate, picture: MaskPicture): void {
  if (!gate.hue) return;
  const limit = gate.hue;
  const table = pairTable(HUE_KNOTS, (turn) => hueShare(limit, 360 * turn));
  const { hue, fade } = picture.hues();
  for (let i = 0; i < plane.length; i++) {
    const share = readTable(table, hue[i]!) * fade[i]!;
    plane[i] = plane[i]! * (limit.invert ? 1 - share : share);
  }
}

/** A plane times another, in place. */
export function multiplyBy(plane: Float32Array, by: Float32Array): void {
  for (let i = 0; i < plane.length; i++) plane[i] = plane[i]! * by[i]!;
}

/** How far a gate lets each tone through, over tone 0–1. */
export function gateTableOf(gate: Gate): Float32Array {
  return pairTable(GATE_KNOTS, (t) => gateShare(gate, t * LAST_ZONE));
}

/** The tone a gate reads from the original or the mix, 0–1. */
export function gateTone(gate: Gate, picture: MaskPicture): Float32Array {
  const weights = weightsRead(gate);
  if (!weights) return picture.mixed();
  const { red, green, blue } = picture;
  const { red: r, green: g, blue: b } = weights;
  const light = new Float32Array(red.length);
  for (let i = 0; i < light.length; i++) light[i] = r * red[i]! + g * green[i]! + b * blue[i]!;
  return toneOf(light);
}

function toneOf(light: Float32Array): Float32Array {
  const tone = new Float32Array(light.length);
  for (let i = 0; i < tone.length; i++) tone[i] = readTable(LIGHT_TO_TONE, Math.min(Math.max(light[i]!, 0), 1));
  return tone;
}
