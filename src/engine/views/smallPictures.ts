import type { ExposureStroke } from "@/core/steps/placedStops";
import type { Pass } from "@/core/passes/pass";
import type { StopsOf } from "../masks/stopsPlanes";
import { accents } from "@/core/passes/exposure/accents";
import { smallPrint, type Frame } from "@/core/frame/frame";
import { handwork } from "@/core/inspect/handwork";
import { placedStops } from "@/core/passes/passKinds";
import { findTwins, twinPlane, type Twins } from "@/core/mix/twins";
import { suggestMixes, type SuggestedMix } from "@/core/mix/suggestMixes";
import { compiledBefore, maskOf, planCompiler, regionKey } from "@/core/plan/compilePlan";
import type { Plan } from "@/core/plan/plan";
import { boxBlur } from "@/core/spatial/boxBlur";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { keepNewest } from "../machine/keepNewest";
import type { Glimpse, GlimpseOf, PlaneOf, SmallPlane } from "../messages/messages";
import type { Source } from "../source/source";
import { Stage } from "../stage/stage";
import { FINISHED } from "../stage/stageTypes";

/** Long edge of the small pictures on slips and cards, in pixels. */
const GLIMPSE_EDGE = 144;
/** Of the print beside the colour. */
const BESIDE_EDGE = 320;
/** Long edge of the planes that lines are drawn from, and of those in which edges are looked for. */
const OUTLINE_EDGE = 260;
const FINE_EDGE = 640;
/** Long edge of the picture whose colours are compared with one another: some hundreds of places. */
const SAMPLES_EDGE = 28;
/** Long edge of the picture in which areas of one colour are looked for: some thousands of places. */
const TWINS_EDGE = 72;
/** So that they are drawn as areas, not as every leaf of them. Units: pixels of what lines are drawn from. */
const TWINS_BLUR = 2;
/** Sizes kept at once: another crop needs another one for its small pictures. */
const MOST_STAGES = 7;
/** How much a change of tone is enlarged in glimpses, lighter and darker than mid grey. */
const GLIMPSE_GAIN = 3;

/** What the page asks of a picture besides its frames, each answered from the picture as small as it will do. */
export class SmallPictures {
  readonly #preview: Source;
  readonly #picture: Size;
  readonly #stages = new Map<number, Stage>();
  readonly #compile: ReturnType<typeof planCompiler>;
  readonly #compileOutline: ReturnType<typeof planCompiler>;

  /** `picture` is its full size. */
  constructor(preview: Source, picture: Size) {
    this.#preview = preview;
    [this.#compile, this.#compileOutline] = [planCompiler(), planCompiler()].map(
      (compile) => (plan: Plan) => preview.asFarAsGiven(compile(plan)),
    ) as [ReturnType<typeof planCompiler>, ReturnType<typeof planCompiler>];
    this.#picture = picture;
  }

  /** The whole picture, with about this long edge. */
  #stage(longEdge: number): Stage {
    return this.#stageAt(fitLongEdge(this.#preview.size, longEdge));
  }

  #stageAt(size: Size): Stage {
    const long = Math.max(size.width, size.height);
    const stage = this.#stages.get(long) ?? new Stage(this.#preview.reducedTo(size));
    keepNewest(this.#stages, long, stage, MOST_STAGES);
    return stage;
  }

  /** The picture as small as its print has about this long edge, and where the print lies on it. */
  #stageOfPrint(frame: Frame, longEdge: number) {
    const { pictureAt, print, size } = smallPrint(frame, this.#picture, this.#preview.size, longEdge);
    return { stage: this.#stageAt(pictureAt), print, size };
  }

  /** The finished print small, or what each pass changes. */
  glimpses(plan: Plan, of: Exclude<GlimpseOf, "sheet">): Glimpse[] {
    const { stage, print, size } = this.#stageOfPrint(plan.frame, of === "beside" ? BESIDE_EDGE : GLIMPSE_EDGE);
    const compiled = this.#compile(plan);
    if (of !== "changes") return [{ ...size, rgba: stage.render(compiled, undefined, FINISHED, { print }) }];
    return stage.changes(compiled).map((change, i) => {
      // What lays colour changes no tone: the print with it is shown.
      if (compiled.passes[i]!.step?.kind === "chroma")
        return { ...size, rgba: stage.render(compiledBefore(compiled, i + 1), undefined, FINISHED, { print }) };
      const shown = change.map((by) => 0.5 + GLIMPSE_GAIN * by);
      return { ...size, rgba: greyPixels(print ? stage.source.cutter.cut(shown, stage.size, print) : shown) };
    });
  }

  /** A plane of a plan; undefined where what it is of is not there. */
  plane(plan: Plan, of: PlaneOf): SmallPlane | undefined {
    if ("tones" in of) return this.#finished(plan);
    if ("twins" in of) {
      const stage = this.#stage(OUTLINE_EDGE);
      const { one, other } = of.twins;
      const plane = twinPlane(stage.mixedBy(this.#compile(plan)).colour, one, other);
      return { ...stage.size, plane: Float32Array.from(boxBlur(plane, stage.size, TWINS_BLUR)) };
    }
    const stage = this.#stage("handwork" in of ? FINE_EDGE : OUTLINE_EDGE);
    const plane = "region" in of ? this.#region(stage, plan, of.region) : this.#passPlane(stage, plan, of);
    return plane && { ...stage.size, plane };
  }

  /** The finished tones, as far as they are in the print. */
  #finished(plan: Plan): SmallPlane {
    const { stage, print, size } = this.#stageOfPrint(plan.frame, OUTLINE_EDGE);
    const tones = this.#tones(stage, plan);
    return { ...size, plane: Float32Array.from(print ? stage.source.cutter.cut(tones, stage.size, print) : tones) };
  }

  #passPlane(stage: Stage, plan: Plan, of: { exposure: string } | { handwork: string }): Float32Array<ArrayBuffer> | undefined {
    const id = "exposure" in of ? of.exposure : of.handwork;
    const index = plan.passes.findIndex((pass) => pass.id === id);
    const exposed = stopsOf(plan, plan.passes[index]);
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

  /** Colours that differ and come to one tone in the mix. */
  twins(plan: Plan): Twins[] {
    const { colour, tones } = this.#stage(TWINS_EDGE).mixedBy(this.#compile(plan));
    return findTwins(colour, tones);
  }

  /** Mixes that keep the picture's colours apart. */
  mixes(): SuggestedMix[] {
    return suggestMixes(this.#stage(SAMPLES_EDGE).source.colour);
  }

  /** The tones a plan leaves. */
  #tones(stage: Stage, plan: Plan): Float32Array {
    stage.update(this.#compile(plan), undefined);
    return stage.tonesAfter(plan.passes.length);
  }
}

/** A pass that gives stops to places; undefined for any other. */
export function stopsOf({ frame }: Plan, pass: Pass | undefined): StopsOf | undefined {
  const placed = pass && placedStops(pass.move);
  return placed && { id: pass.id, placed, frame };
}

/** Tones as pixels. */
function greyPixels(tones: Float32Array): Uint8ClampedArray<ArrayBuffer> {
  const rgba = new Uint8ClampedArray(4 * tones.length).fill(255);
  for (let i = 0; i < tones.length; i++) rgba[4 * i] = rgba[4 * i + 1] = rgba[4 * i + 2] = 255 * tones[i]!;
  return rgba;
}
