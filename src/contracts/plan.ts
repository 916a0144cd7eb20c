import { z } from "zod";
import { BLEND_MODES } from "@/core/blend/blend";
import { CoreError } from "@/core/errors";
import { LONGEST_NAME, MOST_PASSES } from "@/core/plan/editPasses";
import { actsOnColour } from "@/core/passes/passKinds";
import { PLAN_VERSION, type Plan as PlanType } from "@/core/plan/plan";
import { MOST_REGIONS } from "@/core/region/region";
import { MOST_SPOTS } from "@/core/spots/spot";
import { LAST_ZONE } from "@/core/zones/zone";
import { FrameSchema } from "./frame";
import { MixLookSchema } from "./mix";
import { Move } from "./passes/moves";
import { Strength } from "./passes/parts";
import { refineIds } from "./refineIds";
import { GateSchema, RegionSchema } from "./region";
import { SpotSchema } from "./spot";
import { isRecord } from "./upgrades/upgrade";
import { upgraded } from "./upgrades/upgrades";
import type { Plain } from "@/core/units";

const Id = z.string().min(1).max(64);
const Name = z.string().trim().min(1).max(LONGEST_NAME);

const PassSchema = z.strictObject({
  id: Id.describe("Any name of its own within the plan"),
  name: Name,
  on: z.boolean(),
  strength: Strength.describe("0 nothing, 1 as set, 2 twice as far"),
  blend: z.enum(BLEND_MODES).describe("How it meets what is beneath: W3C Compositing and Blending Level 1"),
  region: Id.nullable().describe("Where it acts: a region of the plan; null for the whole picture"),
  gate: GateSchema.nullable().describe("The tones it acts on; null for all"),
  zonesOff: z
    .array(z.number().int().min(0).max(LAST_ZONE))
    .describe("Zones whose tones stay as they come, in order")
    .superRefine(refineZones),
  set: Id.nullable().describe("The set it is tied into; the passes of a set are neighbours"),
  move: Move,
});

const SetSchema = z.strictObject({
  id: Id,
  name: Name,
  on: z.boolean(),
  strength: Strength.describe("Times the strength of each of its passes"),
  region: Id.nullable().describe(
    "Where all of its passes act, each in its own region besides: a region of the plan; null for the whole picture",
  ),
  gate: GateSchema.nullable()
    .refine((gate) => gate?.source !== "entering", {
      path: ["source"],
      message: "a set's gate reads what is the same for all of its passes: the mix or the original",
    })
    .describe("The tones all of its passes act on, by the mix or the original; null for all"),
});

const MixSchema = z.strictObject({
  ...MixLookSchema.shape,
  clean: z.number().min(0).max(1).describe("How far the colour it reads is cleaned of noise and compression"),
  strength: Strength.describe("How far it departs from what the eye sees as light"),
  weightsOn: z.boolean().describe("Whether its weights apply, or those of the eye"),
});

/** A print plan as it is written. Independent of pixel size. */
const CurrentPlan = z
  .strictObject({
    version: z.literal(PLAN_VERSION),
    frame: FrameSchema,
    spots: z.array(SpotSchema).max(MOST_SPOTS).superRefine(refineIds("spot")).describe("What is covered before all else, in order"),
    mix: MixSchema,
    regions: z.array(RegionSchema).max(MOST_REGIONS).superRefine(refineIds("region")),
    sets: z.array(SetSchema).max(MOST_PASSES).superRefine(refineIds("set")),
    passes: z.array(PassSchema).max(MOST_PASSES).superRefine(refineIds("pass")),
  })
  .superRefine(refineSets)
  .superRefine(refineRegions)
  .superRefine(refineOrder)
  .meta({ title: "Nigrographe print plan", description: "The steps from a colour picture to a monochrome print." });

// The compiler holds the schema to be exactly the core's type; units are not written.
type Same<A, B> = (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : never;
const _schemaIsThePlan: Same<z.infer<typeof CurrentPlan>, Plain<PlanType>> = true;
void _schemaIsThePlan;

/** A file may say which schema it follows, for those who edit it. */
function withoutSchema(json: unknown): unknown {
  if (!isRecord(json) || !("$schema" in json)) return json;
  const { $schema: _, ...plan } = json;
  return plan;
}

/** A plan as it may come from a row, a file or a page: older versions are brought up to date. */
export const Plan = z.preprocess((json) => upgraded(withoutSchema(json)), CurrentPlan);

/** Faults that are told one by one: nobody reads more. */
export const MOST_FAULTS = 20;

/**
 * Reads a plan from parsed JSON, of this version or an older one.
 *
 * Errors  CoreError `bad_plan` naming the field and the reason, one line a fault, of the first ones.
 */
export function parsePlan(json: unknown): PlanType {
  const result = Plan.safeParse(json);
  if (result.success) return result.data;
  const { issues } = result.error;
  const faults = issues.slice(0, MOST_FAULTS).map((issue) => ({ field: fieldName(issue.path), reason: issue.message }));
  const lines = faults.map(({ field, reason }) => `${field}: ${reason}`);
  if (issues.length > faults.length) lines.push(`and ${issues.length - faults.length} faults more`);
  throw new CoreError("bad_plan", lines.join("\n"), { faults, count: issues.length });
}

/** The JSON Schema (2020-12) of a plan, published in docs/. */
export function planJsonSchema(): object {
  const { $schema, ...schema } = z.toJSONSchema(CurrentPlan);
  const properties = { $schema: { type: "string", description: "The schema it follows." }, ...schema.properties };
  return { $schema, $id: `urn:nigrographe:plan:${PLAN_VERSION}`, ...schema, properties };
}

function fieldName(path: readonly PropertyKey[]): string {
  const name = path.map((part) => (typeof part === "number" ? `[${part}]` : `.${String(part)}`)).join("");
  return name.replace(/^\./, "") || "plan";
}

function refineZones(zones: number[], context: z.RefinementCtx): void {
  if (zones.some((zone, i) => i > 0 && zone <= zones[i - 1]!)) context.addIssue({ code: "custom", message: "must be in order, each once" });
}

type InRegion = { region: string | null };

/** Passes and sets act within regions that are there. */
function refineRegions(
  { regions, ...things }: { regions: { id: string }[]; passes: InRegion[]; sets: InRegion[] },
  context: z.RefinementCtx,
): void {
  const known = new Set(regions.map(({ id }) => id));
  for (const list of ["passes", "sets"] as const)
    things[list].forEach(({ region }, i) => {
      if (region === null || known.has(region)) return;
      context.addIssue({ code: "custom", path: [list, i, "region"], message: "there is no region of this id" });
    });
}

/** Passes of colour come before those of tones: the mix lies between them. */
function refineOrder({ passes }: Pick<PlanType, "passes">, context: z.RefinementCtx): void {
  const mix = passes.findIndex(({ move }) => !actsOnColour(move));
  const late = mix < 0 ? -1 : passes.findIndex(({ move }, i) => i > mix && actsOnColour(move));
  if (late >= 0) context.addIssue({ code: "custom", path: ["passes", late], message: "passes of colour come before those of tones" });
}

/** Each set has passes, and they stand side by side. */
function refineSets(
  { sets, passes }: { sets: { id: string }[]; passes: Pick<PlanType["passes"][number], "set" | "move">[] },
  context: z.RefinementCtx,
): void {
  const known = new Set(sets.map(({ id }) => id));
  passes.forEach(({ set }, i) => {
    if (set === null) return;
    const issue = (message: string) => context.addIssue({ code: "custom", path: ["passes", i, "set"], message });
    if (!known.has(set)) issue("there is no set of this id");
    const first = passes.findIndex((other) => other.set === set);
    if (passes.slice(first, i).some((other) => other.set !== set)) issue("the passes of a set must be neighbours");
    if (actsOnColour(passes[first]!.move) !== actsOnColour(passes[i]!.move)) issue("a set lies on one side of the mix");
  });
  sets.forEach(({ id }, i) => {
    if (!passes.some(({ set }) => set === id)) context.addIssue({ code: "custom", path: ["sets", i], message: "no pass is in this set" });
  });
}
