/** A plan of one version as one of the next; of whatever shape it is, what is not as it should be stays so. */
export type Upgrade = (plan: Record<string, unknown>) => Record<string, unknown>;

/** Brings each pass of a plan of whatever shape up to date. */
export function withEachPass(passes: unknown, added: Record<string, unknown>): unknown {
  return Array.isArray(passes) ? passes.map((pass: unknown) => (isRecord(pass) ? { ...pass, ...added } : pass)) : passes;
}

/** Brings each shape of a kind up to date. */
export function withEachShape(regions: unknown, kind: string, added: Record<string, unknown>): unknown {
  if (!Array.isArray(regions)) return regions;
  const changed = (shape: unknown) => (isRecord(shape) && shape.kind === kind ? { ...added, ...shape } : shape);
  return regions.map((region: unknown) =>
    isRecord(region) && Array.isArray(region.shapes) ? { ...region, shapes: region.shapes.map(changed) } : region,
  );
}

/** Brings each move of a kind up to date. */
export function withEachMove(passes: unknown, kind: string, added: Record<string, unknown>): unknown {
  if (!Array.isArray(passes)) return passes;
  return passes.map((pass: unknown) =>
    isRecord(pass) && isRecord(pass.move) && pass.move.kind === kind ? { ...pass, move: { ...pass.move, ...added } } : pass,
  );
}

/** Whether JSON is an object. */
export function isRecord(json: unknown): json is Record<string, unknown> {
  return typeof json === "object" && json !== null && !Array.isArray(json);
}
