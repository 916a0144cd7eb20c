import type { ExposureSettings } from "@/core/passes/exposure/exposure";
import { formatStops, formatZone } from "@/core/zones/zone";
import { useBenchState } from "../../state/BenchContext";
import type { PassFace } from "../passFace";
import { ExposurePart } from "./ExposurePart";
import { HandworkMarks } from "./HandworkMarks";
import { PaintedMapPart } from "./PaintedMapPart";
import { ZoneAmounts } from "./ZoneAmounts";

export const exposure: PassFace<"exposure"> = {
  name: "Exposure",
  purpose: "Dodge and burn: by brush, over all, zone by zone",
  words: exposureWords,
  Panel: (props) => (
    <>
      <ExposurePart {...props} />
      <PaintedMapPart {...props} />
    </>
  ),
  UnderGate: ZoneAmounts,
  OnPicture: function OnPicture({ pass, size }) {
    const showsHandwork = useBenchState((state) => state.showsHandwork);
    return showsHandwork && <HandworkMarks pass={pass} size={size} />;
  },
};

/** What is exposed most: all of it, a zone, or what was painted. */
function exposureWords({ flat, zones, strokes }: ExposureSettings): string {
  const furthest = zones.reduce((most, stops, zone) => (Math.abs(stops) > Math.abs(zones[most]!) ? zone : most), 0);
  if (flat !== 0) return `All ${formatStops(flat)}`;
  if (zones[furthest] !== 0) return `${formatZone(furthest)} ${formatStops(zones[furthest]!)}`;
  return strokes.length > 0 ? `${strokes.length} ${strokes.length === 1 ? "stroke" : "strokes"}` : "Exposure";
}
