"use client";
import { area, curveBasis, scaleLinear } from "d3";
import { memo, useMemo, useRef, type PointerEvent } from "react";
import { toneToLuminance } from "@/core/colour/lstar";
import { srgbEncode } from "@/core/colour/transferCurve";
import { liftableZone } from "@/core/placement/liftZone";
import { findStrain, type Strain } from "@/core/placement/findStrain";
import { placementCurve } from "@/core/placement/placementCurve";
import { passCurve, type ZoneCurve } from "@/core/plan/passCurve";
import type { Move } from "@/core/plan/plan";
import { addStrand, moveStrand, type Strand } from "@/core/placement/strand";
import { formatZone, LAST_ZONE, ZONE_COUNT, zoneNumeral } from "@/core/zones/zone";
import { HISTOGRAM_BINS, zoneShares } from "@/core/zones/zoneShares";
import type { StageHistograms } from "@/engine/stage";
import { useBench, useBenchState } from "./BenchContext";
import { chosenPass, withMove } from "./benchStore";
import { BOTTOM, HANDLE_INSET, thread, TOP, type X } from "./scaleGeometry";
import { snapZone } from "./snapZone";
import { Strands } from "./Strands";
import { useWidth } from "./useWidth";
import styles from "./Scale.module.css";

const LEFT = 112;
const RIGHT = 24;
const RAIL = 14;
const HISTOGRAM_HEIGHT = 34;
/** Where no pass is in hand and the print's own rail stands alone. */
const TALL_HISTOGRAM = 88;
const THREADS = 6 * LAST_ZONE;

/** The two rails of zones: where tones fall before the chosen pass, where they are placed, and the strands between. */
export function Scale() {
  const { store } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const plan = useBenchState((state) => state.plan);
  const step = useBenchState((state) => state.step);
  const chosen = chosenPass({ plan, step });
  const pass = chosen?.pass;
  const strands = pass?.move.kind === "placement" ? pass.move.strands : undefined;
  const curve = useMemo<ZoneCurve>(() => (pass?.on ? passCurve(pass) : (zone) => zone), [pass]);
  const strain = useMemo(() => findStrain(curve), [curve]);
  const x = useMemo(() => scaleLinear([0, LAST_ZONE], [LEFT, Math.max(width - RIGHT, LEFT + 100)]), [width]);
  const zoneAt = (event: { clientX: number }) => {
    const { left } = frame.current!.getBoundingClientRect();
    return Math.min(Math.max(x.invert(event.clientX - left), 0), LAST_ZONE);
  };
  const peek = (zone: number | undefined, isBefore: boolean) =>
    store.getState().set({
      look: zone === undefined ? { kind: "picture" } : { kind: "zone", zone },
      isBefore: zone !== undefined && isBefore && !!chosen,
    });
  const lit = useBenchState((state) => (state.look.kind === "zone" ? state.look.zone : undefined));

  /** A press on the upper rail: a new strand there, or the zone a contrast turns around. */
  const add = (event: PointerEvent) => {
    if (!pass || event.button !== 0) return;
    const from = event.altKey ? zoneAt(event) : snapZone(zoneAt(event));
    if (pass.move.kind === "contrast") {
      const move = { ...pass.move, around: from };
      store.getState().adjust((now) => withMove(now, pass.id, move));
      return store.getState().commit(`Contrast around ${formatZone(from)} in ${pass.name}`);
    }
    if (!strands) return;
    const joined = addStrand(strands, { from, to: placementCurve(strands)(from) });
    if (!joined) return;
    peek(undefined, false);
    store.getState().adjust((now) => withMove(now, pass.id, { kind: "placement", strands: joined }));
    store.getState().set({ chosenStrand: joined.findIndex((strand) => strand.from === from) });
    store.getState().commit(`A strand at ${formatZone(from)} in ${pass.name}`);
  };

  // A zone pulled along the lower rail is lifted or lowered alone, its neighbours held.
  const lift = useRef<{ zone: number; at: number; strands: Strand[]; index: number } | undefined>(undefined);
  const beginLift = (event: PointerEvent, zone: number) => {
    const found = strands && event.button === 0 ? liftableZone(strands, zone) : undefined;
    if (!found) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    lift.current = { zone, at: zoneAt(event), ...found };
  };
  const pullLift = (event: PointerEvent) => {
    if (!lift.current || !pass) return;
    const { zone, at, strands: held, index } = lift.current;
    const by = zoneAt(event) - at;
    const to = event.altKey ? zone + by : snapZone(zone + by);
    const move: Move = { kind: "placement", strands: moveStrand(held, index, { ...held[index]!, to }) };
    store.getState().set({ look: { kind: "picture" }, isBefore: false, chosenStrand: index });
    store.getState().adjust((now) => withMove(now, pass.id, move));
  };
  const endLift = () => {
    const lifted = lift.current;
    lift.current = undefined;
    const move = store.getState().plan.passes.find(({ id }) => id === pass?.id)?.move;
    if (!lifted || !pass || move?.kind !== "placement") return;
    const reached = move.strands[lifted.index]?.to ?? lifted.zone;
    store
      .getState()
      .commit(`Zone ${formatZone(lifted.zone)} ${reached < lifted.zone ? "lowered" : "lifted"} to ${formatZone(reached)} in ${pass.name}`);
  };

  const number = chosen ? chosen.index + 1 : undefined;
  return (
    <div ref={frame} className={styles.scale} data-testid="scale">
      {width > 0 && (
        <svg width={width} height={178} role="group" aria-label="Scale of zones">
          {chosen && <HistogramShape of="entering" x={x} base={TOP - RAIL} height={-HISTOGRAM_HEIGHT} />}
          {chosen ? (
            <HistogramShape of="leaving" x={x} base={BOTTOM + RAIL} height={HISTOGRAM_HEIGHT - 8} />
          ) : (
            <HistogramShape of="finished" x={x} base={BOTTOM} height={-TALL_HISTOGRAM} />
          )}
          {chosen && <Threads curve={curve} strain={strain} x={x} />}
          {chosen && <Rail name="Falls" x={x} y={TOP - RAIL} lit={lit} onPeek={(zone) => peek(zone, true)} onPress={add} />}
          <Rail
            name="Placed"
            x={x}
            y={BOTTOM}
            lit={lit}
            onPeek={(zone) => peek(zone, false)}
            onPress={beginLift}
            onPull={pullLift}
            onRelease={endLift}
          />
          <Shares of={chosen ? "leaving" : "finished"} x={x} y={chosen ? 173 : BOTTOM + RAIL + 15} />
          <text className={styles.title} x={16} y={chosen ? TOP - 6 : -20}>
            Falls
          </text>
          <text className={styles.subtitle} x={16} y={chosen ? TOP + 8 : -20}>
            before pass {number}
          </text>
          <text className={styles.title} x={16} y={BOTTOM + 7}>
            {chosen ? "Placed" : "The print"}
          </text>
          <text className={styles.subtitle} x={16} y={BOTTOM + 21}>
            {chosen ? `after pass ${number}` : "as it stands"}
          </text>
          <ReadingMarks x={x} both={!!chosen} />
          {chosen && strands && <Strands strands={strands} x={x} zoneAt={zoneAt} passId={chosen.pass.id} passName={chosen.pass.name} />}
          {pass?.move.kind === "contrast" && <Pivot zone={pass.move.around} x={x} />}
          {chosen && <StrainWords strain={strain} x={x} />}
        </svg>
      )}
    </div>
  );
}

interface RailProps {
  name: string;
  x: X;
  y: number;
  lit: number | undefined;
  onPeek(zone: number | undefined): void;
  onPress(event: PointerEvent, zone: number): void;
  onPull?(event: PointerEvent): void;
  onRelease?(): void;
}

function Rail({ name, x, y, lit, onPeek, onPress, onPull, onRelease }: RailProps) {
  return (
    <g className={styles.rail} onPointerLeave={() => onPeek(undefined)} data-testid={`rail-${name.toLowerCase()}`}>
      {Array.from({ length: ZONE_COUNT }, (_, zone) => {
        const from = Math.max(zone - 0.5, 0);
        const to = Math.min(zone + 0.5, LAST_ZONE);
        const middle = zone === 0 ? 0.25 : zone === LAST_ZONE ? LAST_ZONE - 0.25 : zone;
        return (
          <g
            key={zone}
            onPointerEnter={(event) => event.buttons === 0 && onPeek(zone)}
            onPointerDown={(event) => onPress(event, zone)}
            onPointerMove={onPull}
            onLostPointerCapture={onRelease}
          >
            <rect
              x={x(from)}
              width={x(to) - x(from)}
              y={y}
              height={RAIL}
              fill={greyOf(zone)}
              className={lit === zone ? styles.litZone : undefined}
            />
            <text x={x(middle)} y={y + 11} fill={zone > 5 ? "#19191b" : "#f3f1ed"}>
              {zoneNumeral(zone)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function greyOf(zone: number): string {
  const level = Math.round(255 * srgbEncode(toneToLuminance(zone / LAST_ZONE)));
  return `rgb(${level} ${level} ${level})`;
}

/** Points drawn of a histogram, and the share of bins that may rise over the top. */
const POINTS = 100;
const CLIPPED_SHARE = 0.97;

const HistogramShape = memo(function HistogramShape({
  of,
  x,
  base,
  height,
}: {
  of: keyof StageHistograms;
  x: X;
  base: number;
  height: number;
}) {
  const counts = useBenchState((state) => state.measured?.[of]);
  const path = useMemo(() => {
    if (!counts) return "";
    const bins = HISTOGRAM_BINS / POINTS;
    const sums = Array.from({ length: POINTS }, (_, i) => counts.subarray(i * bins, (i + 1) * bins).reduce((sum, count) => sum + count, 0));
    const top = sums.toSorted((a, b) => a - b)[Math.floor(POINTS * CLIPPED_SHARE)]! || 1;
    const shape = area<number>()
      .x((_, i) => x(((i + 0.5) / POINTS) * LAST_ZONE))
      .y0(base)
      .y1((sum) => base + height * Math.min(sum / top, 1.15))
      .curve(curveBasis);
    return shape(sums) ?? "";
  }, [counts, x, base, height]);
  return <path d={path} className={styles.histogram} />;
});

const Shares = memo(function Shares({ of, x, y }: { of: keyof StageHistograms; x: X; y: number }) {
  const counts = useBenchState((state) => state.measured?.[of]);
  if (!counts) return null;
  return (
    <g className={styles.shares} data-testid="shares">
      {zoneShares(counts).map((share, zone) => (
        <text key={zone} x={x(zone === 0 ? 0.25 : zone === LAST_ZONE ? LAST_ZONE - 0.25 : zone)} y={y}>
          {formatShare(share)}
        </text>
      ))}
    </g>
  );
});

function formatShare(share: number): string {
  const percent = 100 * share;
  if (percent === 0) return "–";
  return percent < 0.1 ? "<0.1 %" : `${percent < 10 ? percent.toFixed(1) : Math.round(percent)} %`;
}

function Threads({ curve, strain, x }: { curve: ZoneCurve; strain: Strain[]; x: X }) {
  const paths = { calm: "", merging: "", tearing: "" };
  for (let i = 0; i <= THREADS; i++) {
    const zone = (i / THREADS) * LAST_ZONE;
    const kind = strain.find((stretch) => zone >= stretch.from && zone <= stretch.to)?.kind ?? "calm";
    paths[kind] += thread(x(zone), x(curve(zone)));
  }
  return (
    <g className={styles.threads} data-testid="threads">
      <path d={paths.calm} />
      <path d={paths.merging} className={styles.merging} />
      <path d={paths.tearing} className={styles.tearing} />
    </g>
  );
}

const STRAIN_WORDS = {
  merging: { what: "tones draw together", todo: "place the strands there further apart" },
  tearing: { what: "tones are pulled apart", todo: "place the strands there closer" },
} as const;

function StrainWords({ strain, x }: { strain: Strain[]; x: X }) {
  const widest = strain.toSorted((a, b) => b.to - b.from - (a.to - a.from))[0];
  if (!widest) return null;
  const { what, todo } = STRAIN_WORDS[widest.kind];
  const middle = Math.min(Math.max(x((widest.from + widest.to) / 2), LEFT + 150), x(LAST_ZONE) - 150);
  return (
    <text className={styles.strain} x={middle} y={TOP + 27} data-testid="strain">
      <title>{`To mend it, ${todo}.`}</title>
      {`${formatZone(widest.from)} to ${formatZone(widest.to)}: ${what}`}
    </text>
  );
}

/** The zone a contrast turns around, on both rails. */
function Pivot({ zone, x }: { zone: number; x: X }) {
  return (
    <g className={styles.chosenStrand} data-testid="pivot">
      <path d={thread(x(zone), x(zone))} className={styles.strandLine} />
      {[TOP + HANDLE_INSET, BOTTOM - HANDLE_INSET].map((y) => (
        <path key={y} d="M0,-7L5.5,0L0,7L-5.5,0Z" transform={`translate(${x(zone)},${y})`} className={styles.solid} />
      ))}
    </g>
  );
}

function ReadingMarks({ x, both }: { x: X; both: boolean }) {
  const reading = useBenchState((state) => state.reading);
  if (!reading) return null;
  const mark = (tone: number, y: number, down: boolean) => {
    const at = x(tone * LAST_ZONE);
    return <path d={down ? `M${at - 4},${y - 7}h8l-4,7z` : `M${at - 4},${y + 7}h8l-4,-7z`} />;
  };
  return (
    <g className={styles.readingMarks}>
      {both && mark(reading.entering, TOP - RAIL, true)}
      {mark(reading.leaving, BOTTOM + RAIL, false)}
    </g>
  );
}
