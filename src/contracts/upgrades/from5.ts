import { isRecord, type Upgrade } from "./upgrade";

/** 5 → 6: the shapes of a region have ids of their own. */
export const from5: Upgrade = (plan) => ({ ...plan, regions: withOwnShapeIds(plan.regions) });

/** Shapes of a region that have one id are told apart: all but the first get another. */
function withOwnShapeIds(regions: unknown): unknown {
  if (!Array.isArray(regions)) return regions;
  return regions.map((region: unknown) => {
    if (!isRecord(region) || !Array.isArray(region.shapes)) return region;
    const ids = new Set(region.shapes.map((shape: unknown) => (isRecord(shape) ? shape.id : undefined)));
    const seen = new Set<unknown>();
    const shapes = region.shapes.map((shape: unknown, i) => {
      if (!isRecord(shape) || !seen.has(shape.id)) {
        seen.add(isRecord(shape) ? shape.id : undefined);
        return shape;
      }
      let n = i;
      while (ids.has(`shape-${n}`)) n++;
      ids.add(`shape-${n}`);
      return { ...shape, id: `shape-${n}` };
    });
    return { ...region, shapes };
  });
}
