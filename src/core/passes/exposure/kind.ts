import { restingExposure, exposureFields } from "./fields";
import type { PlacedStops } from "../../steps/placedStops";
import type { Pass, PassOf } from "../pass";
import { pairTable } from "../../kernels/pairTable";
import { SOFT_KNOTS } from "../../steps/knots";
import { orderedStops, type StopsByTone } from "../../steps/orderedStops";
import { reachOf } from "../../steps/reach";
import type { Step, StopsStep } from "../../steps/step";
import { blended, through } from "../../steps/stopsThrough";
import { between, passingCurve, tableStep, type ZoneCurve } from "../../steps/zoneCurve";
import { TONE_KNOTS } from "../../zones/toneKnots";
import { LAST_ZONE } from "../../zones/zone";
import type { PassKind } from "../passKind";
import { endShare, exposedZone, MOST_CEILING, zoneStops, type ExposureSettings } from "./exposure";
import type { Tone } from "../../units";

type ExposurePass = PassOf<"exposure">;

export const exposure: PassKind<"exposure"> = {
  fields: exposureFields,
  resting: () => ({ kind: "exposure", ...restingExposure() }),
  leavesAll: (move) => move.flat === 0 && move.zones.every((stops) => stops === 0) && !paints(move),
  curve,
  step,
  placed,
  strokes: { of: ({ strokes }) => strokes, with: (move, strokes) => ({ ...move, strokes }) },
};

function placed(settings: ExposureSettings): PlacedStops {
  return { by: "strokes", settings };
}

/** Whether anything painted acts. */
function paints({ strokes, dodge, burn }: ExposureSettings): boolean {
  return strokes.some(({ erase, burns, ceiling }) => !erase && ceiling > 0 && (burns ? burn : dodge) > 0);
}

/** Where nothing is painted, and it does not matter where a place lies. */
function curve(pass: ExposurePass): ZoneCurve | undefined {
  if (pass.move.strokes.length > 0) return undefined;
  return pass.blend === "normal" ? exposureCurve(pass, true) : passingCurve(pass, exposureCurve(pass, false));
}

/** Through a mask exposure is scaled as light: see CORE, "A pass, in one line". */
function step(pass: ExposurePass, isMasked: boolean): Step {
  const open = isMasked ? undefined : curve(pass);
  return open ? tableStep(open) : stopsStep(pass);
}

function stopsStep(pass: ExposurePass): StopsStep {
  const { move } = pass;
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  const flat = gain * move.flat;
  const byTone = stopsByTone(pass, move, isNormal);
  const { added } = orderedStops(SOFT_KNOTS, byTone);
  return {
    kind: "stops",
    placed: placed(move),
    gain,
    flat,
    onPaper: false,
    through: through(byTone, Math.abs(flat) + gain * mostPainted(move)),
    byTone: byTone.added && pairTable(SOFT_KNOTS, (t) => added[Math.round(t * SOFT_KNOTS)]!),
    blended: blended(pass, byTone, Math.abs(flat) + mostPainted(move)),
  };
}

/** The most stops that painting can give a place, whatever the strokes: so that they change nothing but where they are. */
function mostPainted({ strokes, dodge, burn, limit }: ExposureSettings): number {
  if (strokes.length === 0) return 0;
  return limit ?? MOST_CEILING * Math.max(dodge, burn);
}

/** The stops an exposure gives by tone, besides those painted and flat; at its strength. */
function stopsByTone(pass: Pass, move: ExposureSettings, isThrough: boolean): StopsByTone {
  const { endsHeld, zones } = move;
  const share = (tone: Tone) => {
    const zone = tone * LAST_ZONE;
    return (isThrough ? reachOf(pass, zone) : 1) * (endsHeld ? endShare(zone) : 1);
  };
  const strength = isThrough ? pass.strength : 1;
  const added = zones.every((stops) => stops === 0)
    ? undefined
    : (tone: Tone) => strength * share(tone) * zoneStops(zones, tone * LAST_ZONE);
  return { share, added };
}

/** Exposure is let through as light: with the gate, the zones switched off and the strength of its pass, or before them. */
function exposureCurve(pass: ExposurePass, isThrough: boolean): ZoneCurve {
  const { added, reaching } = orderedStops(TONE_KNOTS, stopsByTone(pass, pass.move, isThrough));
  const stops = reaching((isThrough ? pass.strength : 1) * pass.move.flat);
  const total = between(stops.map((reached, k) => reached + added[k]!));
  return (zone) => exposedZone(zone, total(zone));
}
