import type { ExposureStroke } from "@/core/steps/placedStops";
import type { LevelArea } from "../source/levelFetcher";
import type { Vector3 } from "@/core/colour/matrix3";
import type { Twins } from "@/core/mix/twins";
import type { SuggestedMix } from "@/core/mix/suggestMixes";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { Size } from "@/core/spatial/areaReduce";
import type { Frame as CropFrame } from "@/core/frame/frame";
import type { Plan } from "@/core/plan/plan";
import type { Point } from "@/core/region/region";
import type { Spot } from "@/core/spots/spot";
import type { Look } from "@/core/view/toneTables";
import type { Answer, Ask } from "./asking";
import type { ActivePasses } from "../evaluate/runs";
import type { PointReading, StageHistograms } from "../stage/stageTypes";
import type { WirePlan } from "./wirePlan";
import type { Fraction } from "@/core/units";

// What the page and its worker say to each other. Any number of views are open at a time, of one picture or of several: each has a number
// that the page gives it.

/** What the picture is looked at as. */
export type BenchLook =
  | Look
  | { kind: "colour" }
  /** What the passes in hand change, lighter and darker than mid grey. */
  | { kind: "change" }
  /** Where the pass in hand acts: white acts, black does not. */
  | { kind: "mask" }
  /** What is painted in the pass in hand, in stops on mid grey. */
  | { kind: "exposure" }
  /** Small things in the picture's own light, pushed, so that dust shows. */
  | { kind: "dust" }
  /** The print with the outlines of all regions and what is done there; the page draws them. */
  | { kind: "map" };

/** A place in a picture, as parts of its width and height, 0–1. */
export interface Place {
  x: Fraction;
  y: Fraction;
}

export interface RenderRequest {
  plan: Plan;
  /** What of the picture is shown: the print's frame, or all of it while it is framed. */
  shownFrame: CropFrame;
  /** The passes in hand, if any are. */
  active: ActivePasses | undefined;
  look: BenchLook;
  /** Whether full black and bare paper are drawn as screens. */
  screens: boolean;
  /** Places to be read whenever the picture is measured. */
  pins: readonly Place[];
  /** How large all that is shown lies on the screen, in device pixels. */
  shownSize: Size;
  /** The part seen enlarged; absent when the preview serves. */
  detail: LevelArea | undefined;
  /** A glance at another state: its histograms are not the print's and are left out. */
  isPeek: boolean;
}

/** A request on its way: the plan packed. */
export type WireRequest = Omit<RenderRequest, "plan"> & { plan: WirePlan };

/** What the page asks of its worker besides frames. */
export type Questions = {
  /** Opens a view of a picture. `cores` of the machine, as far as the page may use them. */
  open: { question: { pictureId: string; picture: PreparedPicture; origin: string; cores: number }; answer: { hueShares: Float32Array } };
  read: { question: Place; answer: PointReading | undefined };
  /** Small pictures: the finished print, or what each of the plan's passes changes. */
  glimpse: { question: { plan: WirePlan; of: GlimpseOf }; answer: Glimpse[] };
  /** A plane, small, for its contours and places; undefined where the region or pass is not in the plan. */
  plane: { question: { plan: WirePlan; of: PlaneOf }; answer: SmallPlane | undefined };
  /** Strokes that dodge and burn the lights and darks a pass meets, at a scale in long edges. */
  accents: { question: { plan: WirePlan; passId: string; scale: number }; answer: ExposureStroke[] };
  /** The colour that leaves a plan's passes before the mix, in linear P3: the mean so many pixels to either side of a place. */
  colourAt: { question: { plan: WirePlan; place: Place; reach: number }; answer: Vector3 };
  /** Colours that differ and come to one tone in the mix. */
  twins: { question: { plan: WirePlan }; answer: Twins[] };
  /** How far away lies what would best cover a spot, others being covered. Units: long edges. */
  spotSource: { question: { spot: Spot; others: readonly Spot[]; tried: readonly Point[] }; answer: Point };
  /** Mixes that keep the picture's colours apart. */
  mixes: { question: null; answer: SuggestedMix[] };
};

export type ToWorker =
  | Ask<Questions>
  | { type: "render"; view: number; number: number; request: WireRequest }
  /** Nothing is wanted of a view any more. */
  | { type: "close"; view: number }
  /** Where frames are sent from now on; there a `ToRenderer` comes back for each. */
  | { type: "frames"; port: MessagePort }
  /** Answered at once, to show that there is somebody. */
  | { type: "ping" };

/** What a frame shows: its name tells it from all that shows something else, or as large as something else. */
export interface Screen {
  name: string;
  /** The preview, or a part of a level. */
  area: LevelArea | "preview";
  /** Whether it shows all of the picture, whatever the print's frame. */
  isWhole: boolean;
}

export interface Frame {
  view: number;
  number: number;
  screen: Screen;
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
  /** Its long edge in parts of what is shown: below 1 while a hand moves what takes long, and followed by one of 1. */
  scale: number;
  /** How long the render took in the worker; shown by the benchmarks. */
  tookMs: number;
}

/** What a frame's buffer comes back in, to serve for another. */
export interface ToRenderer {
  type: "recycle";
  view: number;
  buffer: ArrayBuffer;
}

export type ToPresenter =
  { type: "frames"; port: MessagePort } | { type: "canvas"; id: number; canvas: OffscreenCanvas } | { type: "close"; view: number };

export type FromPresenter =
  /** A frame waits for a canvas; `id` tells this wish, and the canvas given for it, from all others: a name may be wished for again. */
  | { type: "wanted"; view: number; id: number; screen: Screen }
  /** `drawnAt` in milliseconds since 1970, as finely as the browser tells. */
  | { type: "drawn"; view: number; id: number; number: number; screen: Screen; scale: number; tookMs: number; drawnAt: number };

/**
 * The finished print as small as on a card, as large as beside the colour, as large as a sheet, or what each of the plan's passes changes.
 */
export type GlimpseOf = "print" | "beside" | "sheet" | "changes";

/** A small picture, opaque pixels of 4 bytes. */
export interface Glimpse extends Size {
  rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** What the worker counted and read of the print last. */
export interface Measured {
  histograms: StageHistograms;
  /** As many as there were pins in the request. */
  pins: PointReading[];
  /** How much of the picture the pass in hand acts on, 0–1; null where it is all, or no one pass; absent until the hand rests. */
  acting: number | null | undefined;
}

/**
 * How far a region acts, 0–1; the stops a pass gives to places; how much its handwork shows, 1 and more where it does; each by
 * its id. Or the finished tones; or how far a place is of one of two colours, or, below nothing, of the other.
 */
export type PlaneOf =
  { region: string } | { exposure: string } | { handwork: string } | { tones: "finished" } | { twins: Pick<Twins, "one" | "other"> };

/** Over the whole picture; finished tones over the print. */
export interface SmallPlane extends Size {
  plane: Float32Array<ArrayBuffer>;
}

export type Cleaning = "under way" | "there" | "failed";

export type FromWorker =
  | Answer
  /** Follows the preview's frame, so that nobody waits for the counting. */
  | ({ type: "measured"; view: number } & Measured)
  /** How far the colours of its picture are cleaned, once a plan asked for them. */
  | { type: "cleaning"; view: number; state: Cleaning }
  /** Something that nobody asked for went wrong: a frame, a part of the picture. */
  | { type: "failed"; view: number; message: string }
  | { type: "pong" };
