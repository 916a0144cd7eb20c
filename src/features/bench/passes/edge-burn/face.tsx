import { formatStops } from "@/core/zones/zone";
import { useBenchState } from "../../state/BenchContext";
import type { PassFace } from "../passFace";
import { EdgeBurnMarks } from "./EdgeBurnMarks";
import { EdgeBurnPart } from "./EdgeBurnPart";

export const edgeBurn: PassFace<"edge-burn"> = {
  name: "Edge burn",
  purpose: "Borders and corners darker, or lighter",
  words: ({ stops }) => `Edges ${formatStops(stops)}`,
  Panel: EdgeBurnPart,
  spreads: "An edge burn moves each place by how near the border it lies, so one tone may go to several.",
  OnPrint: function OnPrint(props) {
    const showsRegion = useBenchState((state) => state.showsRegion);
    return showsRegion && <EdgeBurnMarks {...props} />;
  },
};
