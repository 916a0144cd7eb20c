import type { MoveKind } from "@/core/plan/plan";

/** The kinds of pass by name, in the order they are offered. */
export const MOVE_NAMES: Record<MoveKind, string> = {
  placement: "Placement",
  exposure: "Exposure",
  "edge-burn": "Edge burn",
  contrast: "Contrast",
  "contrast-mask": "Contrast mask",
};
export const MOVE_KINDS = Object.keys(MOVE_NAMES) as MoveKind[];

/** What a kind of pass is for, in a few words. */
export const MOVE_PURPOSES: Record<MoveKind, string> = {
  placement: "Move zones to other zones, hold others",
  exposure: "Dodge and burn: by brush, over all, zone by zone",
  "edge-burn": "Borders and corners darker, or lighter",
  contrast: "Steeper or flatter around a zone; true black and white",
  "contrast-mask": "Tame the large contrasts, keep the small ones",
};
