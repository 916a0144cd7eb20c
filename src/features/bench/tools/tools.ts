import type { Confined, Pass } from "@/core/passes/pass";
import { actsOnColour, laysColour, strokesOfMove } from "@/core/passes/passKinds";

// What the hand can take up, and what of it has a use in the step in hand.

export const REGION_TOOLS = ["loop", "polygon", "oval", "gradient", "brush", "likeness"] as const;
export type RegionTool = (typeof REGION_TOOLS)[number];
const EXPOSURE_TOOLS = ["dodge", "burn", "pick-strokes", "clear-loop"] as const;
const GATE_TOOLS = ["repair", "pick-tones", "pick-hue"] as const;
const COLOUR_PICKS = ["pick-neutral", "pick-stays", "pick-moves", "pick-held", "pick-tint"] as const;
/** Tools that pick a colour for a pass, by what it is picked for. */
export type ColourPick = (typeof COLOUR_PICKS)[number];
/** Those of a region, the brush that repairs a gate, those of an exposure, the line that straightens the frame, and what covers dust. */
const DRAWING_TOOLS = [...REGION_TOOLS, "repair", ...EXPOSURE_TOOLS, "level", "spot"] as const;
export type DrawingTool = (typeof DRAWING_TOOLS)[number];
export type Tool =
  "move" | "pull-hue" | "pull-weights" | "pull-tone" | "read" | "pin" | "pick-tones" | "pick-hue" | ColourPick | DrawingTool;

const isOneOf = <T extends Tool>(tools: readonly T[], tool: Tool): tool is T => (tools as readonly Tool[]).includes(tool);

export function isDrawing(tool: Tool): tool is DrawingTool {
  return isOneOf(DRAWING_TOOLS, tool);
}

export function isOfRegion(tool: Tool): tool is RegionTool {
  return isOneOf(REGION_TOOLS, tool);
}

export function isExposing(tool: Tool): tool is "dodge" | "burn" {
  return tool === "dodge" || tool === "burn";
}

/** Whether a touch with it chooses what passes a gate. */
export function isPicking(tool: Tool): tool is "pick-tones" | "pick-hue" {
  return tool === "pick-tones" || tool === "pick-hue";
}

/** Whether a touch with it picks a colour for a pass. */
export function picksColour(tool: Tool): tool is ColourPick {
  return isOneOf(COLOUR_PICKS, tool);
}

const PULL_TOOLS = ["pull-hue", "pull-weights", "pull-tone", "pick-tones", "pick-hue"] as const;
export type PullTool = (typeof PULL_TOOLS)[number];

/** Whether a spot of the picture is taken hold of with it, and pulled up or down. */
export function pulls(tool: Tool): tool is PullTool {
  return isOneOf(PULL_TOOLS, tool);
}

/** Whether it draws one shape and is then done. */
export function drawsOneShape(tool: Tool): boolean {
  return tool === "loop" || tool === "polygon" || tool === "oval" || tool === "gradient";
}

// What is said where a tool has no use, and stands with a button that does what it advises: see easel/Message.tsx.
export const NEEDS_FRAME = "A print is straightened in its frame. Choose Frame on the ribbon.";
export const NEEDS_SPOTS = "Dust is covered among the spots. Choose Spots on the ribbon.";
export const NEEDS_EXPOSURE = "Dodging and burning is done in an exposure pass. Choose one on the ribbon, or add one.";

/** Why a tool has no use in a step, where a pass or a set, or neither, is in hand; undefined where it has one. */
export function unfitting(tool: Tool, pass: Pass | undefined, thing: Confined | undefined, stage: string): string | undefined {
  if (tool === "level" && stage !== "frame") return NEEDS_FRAME;
  if (tool === "spot" && stage !== "spots") return NEEDS_SPOTS;
  if (isOneOf(EXPOSURE_TOOLS, tool) && !(pass && strokesOfMove(pass.move))) return NEEDS_EXPOSURE;
  if (isOneOf(REGION_TOOLS, tool) && !thing) return "A region belongs to a pass. Choose one on the ribbon, or add one.";
  if (isOneOf(GATE_TOOLS, tool) && !thing) return "Tones are chosen for a pass. Choose one on the ribbon, or add one.";
  if (tool === "pick-tint" && !(pass && laysColour(pass.move)))
    return "A colour is picked for a tint. Choose one on the ribbon, or add one.";
  if (picksColour(tool) && tool !== "pick-tint" && !(pass && actsOnColour(pass.move)))
    return "A colour is picked for a pass before the mix. Choose one on the ribbon, or add one.";
  if (tool === "repair" && !thing?.gate) return "There is no gate to repair in this pass. Choose its tones first.";
  return undefined;
}
