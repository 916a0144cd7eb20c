import type { BenchStore } from "../../state/benchStore";
import type { DrawingTool } from "../tools";
import { touchSpot } from "../../spots/touchSpot";
import { addCorner, drawGradient, drawLoop, drawOval } from "./drawShapes";
import { drawLevel } from "../../frame/levelTool";
import { clearLoop, pickStroke } from "../../passes/exposure/exposureTools";
import { sweep } from "./likenessTool";
import { expose } from "../../passes/exposure/expose";
import { paint, repair } from "./paintStrokes";
import type { Drawer, Touch } from "./drawer";

/** Begins to draw with a tool; undefined where a press is all there is to it. */
export function beginDrawing(tool: DrawingTool, at: Touch, store: BenchStore): Drawer | undefined {
  switch (tool) {
    case "loop":
      return drawLoop(at, store);
    case "polygon":
      addCorner(at, store);
      return undefined;
    case "oval":
      return drawOval(at, store);
    case "gradient":
      return drawGradient(at, store);
    case "brush":
      return paint(at, store);
    case "likeness":
      return sweep(at, store);
    case "repair":
      return repair(at, store);
    case "dodge":
    case "burn":
      return expose(at, store, tool === "burn");
    case "pick-strokes":
      return pickStroke(at, store);
    case "clear-loop":
      return clearLoop(at, store);
    case "level":
      return drawLevel(at, store);
    case "spot":
      return touchSpot(at, store);
  }
}
