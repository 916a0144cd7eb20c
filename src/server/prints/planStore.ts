import { createHash } from "node:crypto";
import type postgres from "postgres";
import type { Stroke } from "@/core/brush/stroke";
import { mapStrokes } from "@/core/plan/mapStrokes";
import type { Plan } from "@/core/plan/plan";
import type { Shape } from "@/core/region/region";

// A plan of thousands of strokes would be kept anew with each step of its history. Whole runs of strokes and imported
// pictures are kept once, by their hash; a revision holds the hashes and the last few strokes.

type Queries = postgres.Sql | postgres.TransactionSql;

/** Strokes of one piece: a step that adds one holds at most this many beside the hashes. */
const STROKES_IN_PIECE = 100;
/** Shorter texts are kept where they are. */
const LEAST_TEXT = 2000;

interface StowedStrokes {
  pieces: string[];
  rest: Stroke[];
}

/** A plan as a row holds it: its large pieces put aside. */
export async function stowPlan(tx: Queries, plan: Plan): Promise<postgres.JSONValue> {
  const pieces = new Map<string, string>();
  const put = (body: string) => {
    const hash = createHash("sha256").update(body).digest("hex");
    pieces.set(hash, body);
    return hash;
  };
  const stowed = mapPieces(
    plan,
    (strokes): unknown => {
      if (strokes.length < STROKES_IN_PIECE) return strokes;
      const whole = strokes.length - (strokes.length % STROKES_IN_PIECE);
      const hashes: string[] = [];
      for (let i = 0; i < whole; i += STROKES_IN_PIECE) hashes.push(put(JSON.stringify(strokes.slice(i, i + STROKES_IN_PIECE))));
      return { pieces: hashes, rest: strokes.slice(whole) } satisfies StowedStrokes;
    },
    (text): unknown => (text.length < LEAST_TEXT ? text : { piece: put(text) }),
  );
  if (pieces.size > 0) {
    const rows = [...pieces].map(([hash, body]) => ({ hash, body }));
    await tx`insert into plan_piece ${(tx as postgres.Sql)(rows)} on conflict do nothing`;
  }
  return stowed as postgres.JSONValue;
}

/** A plan of a row with its pieces put back; plans of older versions are left as they are, for the schema to bring up to date. */
export async function unstowPlan(sql: Queries, stowed: unknown): Promise<unknown> {
  const hashes = new Set<string>();
  const collect = (value: unknown) => {
    if (isStowedStrokes(value)) value.pieces.forEach((hash) => hashes.add(hash));
    if (isStowedText(value)) hashes.add(value.piece);
    return value;
  };
  mapPieces(stowed as Plan, collect, collect);
  if (hashes.size === 0) return stowed;
  const rows = await sql<{ hash: string; body: string }[]>`select hash, body from plan_piece where hash = any(${[...hashes]})`;
  const bodies = new Map(rows.map(({ hash, body }) => [hash, body]));
  return mapPieces(
    stowed as Plan,
    (value: unknown) =>
      isStowedStrokes(value) ? [...value.pieces.flatMap((hash) => JSON.parse(bodies.get(hash)!) as Stroke[]), ...value.rest] : value,
    (value: unknown) => (isStowedText(value) ? bodies.get(value.piece)! : value),
  );
}

/** A plan with each run of strokes and each imported picture replaced. */
function mapPieces(plan: Plan, strokes: (strokes: readonly Stroke[]) => unknown, text: (text: string) => unknown): unknown {
  const mapped = mapStrokes(plan, strokes) as Plan;
  const mapShape = (shape: Shape) => (shape.kind === "picture" ? { ...shape, levels: text(shape.levels) } : shape);
  if (!mapped.regions) return mapped; // of an older version
  return { ...mapped, regions: mapped.regions.map((region) => ({ ...region, shapes: region.shapes.map(mapShape) })) };
}

function isStowedStrokes(value: unknown): value is StowedStrokes {
  return typeof value === "object" && value !== null && "pieces" in value;
}

function isStowedText(value: unknown): value is { piece: string } {
  return typeof value === "object" && value !== null && "piece" in value;
}
