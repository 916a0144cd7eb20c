import { readTable } from "@/core/kernels/pairTable";
import { oklabPlanes } from "@/core/colour/oklab";
import type { Gate } from "@/core/gate/gate";
import type { CompiledMask } from "@/core/plan/compilePlan";
import { combineShapes } from "@/core/region/combineShapes";
import { wholeGrid, type Grid } from "@/core/spatial/grid";
import { fittedBase, guidedBase } from "@/core/region/guidedBase";
import { distanceFrom } from "@/core/region/colourGuide";
import { guideOf, likeness, type LabPicture } from "@/core/region/likeness";
import { rasterShape } from "@/core/region/rasterShape";
import { squareCells } from "@/core/region/squareCells";
import { LEAST_FIT, LEAST_SOFTEN, type LikenessShape, type Region, type Shape } from "@/core/region/region";
import { areaReduceRows, fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { gaussianBlur } from "@/core/spatial/gaussianBlur";
import { layCells } from "@/core/spatial/layCells";
import { layBase } from "@/core/spatial/layBase";
import type { ToneBase } from "@/core/spatial/toneBase";
import { gateBaseKey, likenessKey, regionBaseKey, withItsSet, type MaskBases } from "./maskKeys";
import { gateTableOf, gateTone, type MaskPicture } from "./maskPlane";
import type { TonePlane } from "@/core/units";

/** Long edge of the picture that masks are gathered from, in pixels: the same for the page and an export, so that they agree. */
export const ANALYSIS_EDGE = 640;
/** Cells to the standard deviation of a blur or a fit. */
const CELLS_IN_SIGMA = 4;
const MOST_CELLS = 1024;
/** Cells of the fit that brings a likeness to the picture's edges, along the long edge, and its reach in them. */
const LIKENESS_CELLS = 320;
const LIKENESS_FIT = 1.25;

/** The picture that masks are gathered from: whole, small. */
export interface Analysis extends MaskPicture, Size {}

/** Gathers what masks need of the whole picture; what is there already is kept, all else is dropped. */
export function gatherMaskBases(masks: readonly CompiledMask[], analysis: Analysis, known: MaskBases): MaskBases {
  const bases = new Map<string, ToneBase>();
  const keep = (key: string, make: () => ToneBase) => {
    if (!bases.has(key)) bases.set(key, known.get(key) ?? make());
  };
  for (const { region, gate } of masks.flatMap(withItsSet)) {
    for (const shape of region?.shapes ?? []) {
      if (shape.kind === "likeness") keep(likenessKey(shape), () => likenessBase(shape, analysis));
    }
    const ownKey = region && regionBaseKey(region);
    if (ownKey) keep(ownKey, () => regionBase(region, analysis, bases));
    const blurKey = gate && gateBaseKey(gate);
    if (blurKey) keep(blurKey, () => gateBase(gate, gateTone(gate, analysis), analysis));
  }
  return bases;
}

const labs = new WeakMap<Float32Array, LabPicture>();

function likenessBase(shape: LikenessShape, analysis: Analysis): ToneBase {
  let lab = labs.get(analysis.red);
  if (!lab) labs.set(analysis.red, (lab = labOf(analysis)));
  const size = fitLongEdge(analysis, LIKENESS_CELLS);
  const reduced = (plane: Float32Array) => areaReduceRows(plane, 0, analysis, size, 0, size.height);
  const like = reduced(likeness(lab, shape));
  if (shape.edges === "tone") return guidedBase(like, reduced(analysis.mixed()), size, LIKENESS_FIT);
  const likeTo = guideOf(lab, shape);
  return { ...guidedBase(like, reduced(distanceFrom(analysis, likeTo)), size, LIKENESS_FIT), likeTo };
}

function labOf({ red, green, blue, width, height }: Analysis): LabPicture {
  return { width, height, ...oklabPlanes(red, green, blue) };
}

/** A region softened and fitted: its shapes laid out small, blurred, then brought to the picture's edges. */
function regionBase(region: Region, analysis: Analysis, bases: MaskBases): ToneBase {
  const { shapes } = region;
  const soften = region.soften >= LEAST_SOFTEN ? region.soften : 0;
  const fit = region.fit >= LEAST_FIT ? region.fit : 0;
  const finest = Math.min(...[soften, fit].filter((reach) => reach > 0));
  const most = Math.ceil(CELLS_IN_SIGMA / finest);
  const grid = fit > 0 ? wholeGrid(fitLongEdge(analysis, most)) : squareCells(analysis, Math.min(most, MOST_CELLS));
  const size: Size = { width: grid.width, height: grid.height };
  const tone = onGrid(analysis.mixed(), analysis, grid);
  const likenessOn = (base: ToneBase) =>
    layBase(base, grid, base.likeTo ? onGrid(distanceFrom(analysis, base.likeTo), analysis, grid) : tone);
  const planeOf = (shape: Shape) =>
    shape.kind === "likeness" ? likenessOn(bases.get(likenessKey(shape))!) : rasterShape(shape, grid, soften);
  const drawn = combineShapes(shapes, planeOf, size.width * size.height);
  const softened = soften > 0 ? gaussianBlur(drawn, size, soften * grid.scale) : drawn;
  return fit > 0
    ? fittedBase(softened, tone, size, fit * grid.scale)
    : { width: size.width, height: size.height, square: grid, slope: undefined, offset: softened };
}

/** A plane of the analysed picture on a grid. */
function onGrid(plane: Float32Array, analysis: Size, grid: Grid): Float32Array {
  const { width, height } = grid.whole;
  const isReduced = grid.x === 0 && grid.y === 0 && width <= analysis.width && height <= analysis.height;
  if (isReduced) return areaReduceRows(plane, 0, analysis, { width, height }, 0, height);
  return layCells(plane, analysis, grid);
}

/** A gate's membership, blurred. Shape: tone of `size`. */
export function gateBase(gate: Gate, tone: TonePlane, size: Size): ToneBase {
  const small = fitLongEdge(size, Math.min(Math.ceil(CELLS_IN_SIGMA / gate.blur), MOST_CELLS));
  const table = gateTableOf(gate);
  const shares = new Float32Array(tone.length);
  for (let i = 0; i < shares.length; i++) shares[i] = readTable(table, tone[i]!);
  const reduced = areaReduceRows(shares, 0, size, small, 0, small.height);
  return { ...small, slope: undefined, offset: gaussianBlur(reduced, small, gate.blur * Math.max(small.width, small.height)) };
}
