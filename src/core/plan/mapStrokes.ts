import type { Pass } from "../passes/pass";
import type { Stroke } from "../brush/stroke";
import { withMoveStrokes } from "../passes/passKinds";
import type { Region, Shape } from "../region/region";
import type { Plan } from "./plan";

/**
 * A plan with each of its runs of strokes replaced: those of brushed areas, of gates repaired by hand, of exposures. They are
 * what makes a plan large, so whoever sends or keeps plans treats them apart. What else there is is shared, not copied.
 */
export function mapStrokes(plan: Plan, replace: (strokes: readonly Stroke[]) => unknown): unknown {
  const mapShape = (shape: Shape) => (shape.kind === "brush" ? { ...shape, strokes: replace(shape.strokes) } : shape);
  const mapPass = ({ gate, move, ...pass }: Pass) => ({
    ...pass,
    gate: gate && { ...gate, ...(gate.repair && { repair: replace(gate.repair) }) },
    move: withMoveStrokes(move, replace),
  });
  return {
    ...plan,
    ...(plan.regions && { regions: plan.regions.map((region: Region) => ({ ...region, shapes: region.shapes.map(mapShape) })) }),
    passes: plan.passes.map(mapPass),
  };
}
