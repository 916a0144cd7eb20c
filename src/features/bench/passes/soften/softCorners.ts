import { v4 as uuid } from "uuid";
import { addRegion, emptyRegion, freshRegionName } from "@/core/plan/editRegions";
import { pictureAtPrint, placingOf } from "@/core/frame/frame";
import type { OvalShape } from "@/core/region/region";
import type { BenchStore } from "../../state/benchStore";

/** How far from the middle of the print it stays sharp, and over what it fades, as parts of its half sides. */
const SHARP = 0.85;
const FADES = 0.3;

/** Confines a pass to the corners of the print: to all outside an oval around its middle, which can be moved and shaped like any other. */
export function softenCorners(store: BenchStore, passId: string): void {
  const { plan, picture, adjust, commit, set } = store.getState();
  const long = Math.max(picture.width, picture.height);
  const print = placingOf(plan.frame, picture);
  const middle = pictureAtPrint(print, print.width / 2, print.height / 2);
  const [across, down] = [(SHARP * print.width) / 2 / long, (SHARP * print.height) / 2 / long];
  const fade = FADES * Math.min(across, down);
  const oval: OvalShape = {
    id: uuid(),
    combine: "add",
    kind: "oval",
    x: middle.x / long,
    y: middle.y / long,
    across,
    down,
    turnDeg: (Math.atan2(print.across.y, print.across.x) * 180) / Math.PI,
    inner: fade,
    outer: fade,
  };
  const region = { ...emptyRegion(uuid(), freshRegionName(plan, "Corners")), shapes: [oval], invert: true };
  const grown = addRegion(plan, passId, region);
  if (!grown) return set({ failure: "A plan holds no more regions than these. Remove one that no pass uses." });
  adjust(() => grown);
  commit("Soft corners");
}
