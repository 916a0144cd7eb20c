import { accents } from "@/core/passes/exposure/accents";
import { handwork } from "@/core/inspect/handwork";
import type { ExposureStroke } from "@/core/passes/exposure/exposure";
import { placedStops } from "@/core/passes/passKinds";
import { maskOf, planCompiler, regionKey } from "@/core/plan/compilePlan";
import type { Pass, Plan } from "@/core/plan/plan";
import { fitLongEdge } from "@/core/spatial/areaReduce";
import { lookTable } from "@/core/view/toneTables";
import type { Glimpse, GlimpseOf, PlaneOf, SmallPlane } from "../messages";
import type { Source } from "../source";
import { Stage } from "../stage";
import type { Showing, StopsOf } from "../stageTypes";

/** Long edge of the small pictures on slips and cards, in pixels. */
const GLIMPSE_EDGE = 144;
/** Long edge of the planes that lines are drawn from, and of those in which edges are looked for. */
const OUTLINE_EDGE = 260;
const FINE_EDGE = 640;
/** How much a change of tone is enlarged in glimpses. */
const GLIMPSE_GAIN = 3;

/** What the page asks of a picture besides its frames, each answered from the picture as small as it will do. */
export class SmallPictures {
  readonly #preview: Source;
  readonly #stages = new Map<number, Stage>();
  readonly #compile = planCompiler();
  readonly #compileOutline = planCompiler();

  constructor(preview: Source) {
    this.#preview = preview;
  }

  #stage(longEdge: number): Stage {
    const stage = this.#stages.get(longEdge) ?? new Stage(this.#preview.reducedTo(fitLongEdge(this.#preview.size, longEdge)));
    this.#stages.set(longEdge, stage);
    return stage;
  }

  /** The finished print small, or what each pass changes. */
  glimpses(plan: Plan, of: Exclude<GlimpseOf, "sheet">): Glimpse[] {
    const small = this.#stage(GLIMPSE_EDGE);
    const compiled = this.#compile(plan);
    if (of === "print") return [{ ...small.size, rgba: small.render(compiled, undefined, FINISHED) }];
    return small.changes(compiled).map((change) => ({ ...small.size, rgba: changePixels(change) }));
  }

  /** A plane of a plan; undefined where what it is of is not there. */
  plane(plan: Plan, of: PlaneOf): SmallPlane | undefined {
    const stage = this.#stage("handwork" in of ? FINE_EDGE : OUTLINE_EDGE);
    const plane = "region" in of ? this.#region(stage, plan, of.region) : this.#passPlane(stage, plan, of);
    return plane && { ...stage.size, plane };
  }

  #passPlane(stage: Stage, plan: Plan, of: Exclude<PlaneOf, { region: string }>): Float32Array<ArrayBuffer> | undefined {
    if ("tones" in of) return Float32Array.from(this.#tones(stage, plan));
    const id = "exposure" in of ? of.exposure : of.handwork;
    const index = plan.passes.findIndex((pass) => pass.id === id);
    const exposed = stopsOf(plan.passes[index]);
    if (!exposed) return undefined;
    const stops = stage.stops(exposed)?.slice() ?? new Float32Array(stage.size.width * stage.size.height);
    return "exposure" in of ? Float32Array.from(stops) : this.#handwork(stage, plan, index, stops);
  }

  /** A region, on the mix alone. */
  #region(stage: Stage, plan: Plan, id: string): Float32Array<ArrayBuffer> | undefined {
    const region = plan.regions.find((other) => other.id === id);
    if (!region) return undefined;
    stage.update(this.#compileOutline({ ...plan, passes: [] }), undefined);
    return Float32Array.from(stage.mask({ region, gate: undefined, key: regionKey(region) }));
  }

  #handwork(stage: Stage, plan: Plan, index: number, stops: Float32Array): Float32Array<ArrayBuffer> {
    const pass = plan.passes[index]!;
    const tones = this.#tones(stage, { ...plan, passes: plan.passes.slice(0, index) });
    const mask = maskOf(plan, pass);
    const share = mask && stage.mask(mask);
    const placed = placedStops(pass.move);
    const flat = placed?.by === "strokes" ? placed.settings.flat : 0;
    for (let i = 0; i < stops.length; i++) stops[i] = pass.strength * (stops[i]! + flat) * (share ? share[i]! : 1);
    return Float32Array.from(handwork(stops, tones, stage.size));
  }

  /** Strokes for the lights and darks that enter a pass. */
  accents(plan: Plan, passId: string, scale: number): ExposureStroke[] {
    const stage = this.#stage(FINE_EDGE);
    const index = plan.passes.findIndex(({ id }) => id === passId);
    return accents(this.#tones(stage, { ...plan, passes: plan.passes.slice(0, Math.max(index, 0)) }), stage.size, scale);
  }

  /** The tones a plan leaves. */
  #tones(stage: Stage, plan: Plan): Float32Array {
    stage.update(this.#compile(plan), undefined);
    return stage.tonesAfter(plan.passes.length);
  }
}

const FINISHED: Showing = { table: lookTable({ kind: "picture" }), dithered: true, of: "print", screens: false };

/** A pass that gives stops to places; undefined for any other. */
export function stopsOf(pass: Pass | undefined): StopsOf | undefined {
  const placed = pass && placedStops(pass.move);
  return placed && { id: pass.id, placed };
}

/** A change of tones as pixels: lighter than mid grey where it lightens, darker where it darkens. */
function changePixels(change: Float32Array): Uint8ClampedArray<ArrayBuffer> {
  const rgba = new Uint8ClampedArray(4 * change.length).fill(255);
  for (let i = 0; i < change.length; i++) rgba[4 * i] = rgba[4 * i + 1] = rgba[4 * i + 2] = 255 * (0.5 + GLIMPSE_GAIN * change[i]!);
  return rgba;
}
