import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { Size } from "@/core/spatial/areaReduce";
import type { Plan } from "@/core/plan/plan";
import type { Look } from "@/core/view/toneTables";
import type { PointReading, StageHistograms } from "./stage";

// What the page and its worker say to each other.

/** What the picture is looked at as. */
export type BenchLook = Look | { kind: "colour" };

/** A rectangle of one level, in that level's pixels. */
export interface LevelArea {
  level: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface RenderRequest {
  plan: Plan;
  /** Index of the pass in hand, if one is. */
  chosen: number | undefined;
  look: BenchLook;
  /** How large the whole picture lies on the screen, in device pixels. */
  shownSize: Size;
  /** The part seen enlarged; absent when the preview serves. */
  detail: LevelArea | undefined;
  /** A glance at another state: its histograms are not the print's and are left out. */
  isPeek: boolean;
}

export type ToWorker =
  | { type: "open"; pictureId: string; picture: PreparedPicture; origin: string }
  | { type: "render"; number: number; request: RenderRequest }
  /** Part of the picture's width and height, 0–1. */
  | { type: "read"; number: number; x: number; y: number }
  | { type: "recycle"; buffer: ArrayBuffer };

export interface Frame {
  type: "frame";
  number: number;
  /** What it shows: the preview, or a part of a level. */
  area: LevelArea | "preview";
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
  /** How long the render took in the worker; shown by the benchmarks. */
  tookMs: number;
}

export type FromWorker =
  | { type: "ready"; hueShares: Float32Array }
  | { type: "failed"; message: string }
  | Frame
  /** Follows the preview's frame, so that nobody waits for the counting. */
  | { type: "measured"; histograms: StageHistograms }
  /** A render that was overtaken by a newer one, or had nothing to show yet. */
  | { type: "skipped"; number: number }
  | { type: "reading"; number: number; reading: PointReading | undefined };
