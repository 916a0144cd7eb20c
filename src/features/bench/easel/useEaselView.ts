import type { RefObject } from "react";
import type { Size } from "@/core/spatial/areaReduce";
import { BORDER, usePictureView, type PictureOn } from "@/features/picture-view/usePictureView";
import type { Box } from "@/features/picture-view/view";
import { useBench, useBenchState } from "../state/BenchContext";

/** Easel around the print and its border, in CSS pixels. */
const EASEL_MARGIN = 16;
const TRAY_WIDTH = 108;
/** An easel lower than this has the tray in two columns, as its style sheet has it too. */
const LOW_EASEL = 400;
const BROAD_TRAY_WIDTH = 168;

/** The print in work on the bench's easel, beside the tools. */
export function useEaselView(easel: RefObject<HTMLDivElement | null>): PictureOn {
  const { start, viewStore } = useBench();
  const frame = useBenchState((state) => state.plan.frame);
  const isFraming = useBenchState((state) => state.step.stage === "frame");
  return usePictureView(easel, viewStore, { picture: start.prepared, frame, isFraming, roomIn });
}

function roomIn({ width, height }: Size): Box {
  const tray = height < LOW_EASEL ? BROAD_TRAY_WIDTH : TRAY_WIDTH;
  return {
    left: tray + EASEL_MARGIN + BORDER,
    top: EASEL_MARGIN + BORDER,
    width: Math.max(width - tray - 2 * EASEL_MARGIN - 2 * BORDER, 50),
    height: Math.max(height - 2 * EASEL_MARGIN - 2 * BORDER, 50),
  };
}
