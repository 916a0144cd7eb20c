"use client";
import { scaleLinear } from "d3";
import { useMemo, useRef, type PointerEvent } from "react";
import { passesBeforeMix } from "@/core/plan/editPasses";
import { curveOfPasses } from "@/core/plan/curveOfPasses";
import { LAST_ZONE } from "@/core/zones/zone";
import type { ActivePasses } from "@/engine/evaluate/runs";
import { useBench, useBenchState } from "../state/BenchContext";
import { passNumber } from "../state/passNumber";
import { chosenPass, chosenSet, confinedInHand, activeOf, settledPlan } from "../state/inPlan";
import { GateHill } from "./GateHill";
import { HistogramShape, Shares } from "./HistogramShape";
import { Rail } from "./Rail";
import { BOTTOM, LEFT, RAIL, TOP } from "./scaleGeometry";
import { snapZone } from "./snapZone";
import { faceOf } from "../passes/passFaces";
import { ReadingMarks, Threads } from "./Threads";
import { useWidth } from "./useWidth";
import { useZoneLift } from "../passes/placement/useZoneLift";
import { useSteady } from "../../shared/useSteady";
import styles from "./Scale.module.css";
import type { Zone } from "@/core/units";

const RIGHT = 24;
const HISTOGRAM_HEIGHT = 34;
/** Where no pass is in hand and the print's own rail stands alone. */
const TALL_HISTOGRAM = 88;

/** The two rails of zones: where tones fall before the chosen pass, where they are placed, and the strands between. */
export function Scale() {
  const { store } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const plan = useBenchState((state) => state.tried ?? settledPlan(state));
  const step = useBenchState((state) => state.step);
  const pass = chosenPass({ plan, step })?.pass;
  const inHand = activeOf({ plan, step });
  const face = pass && faceOf(pass.move);
  // Before the mix there are no tones to be placed; the upper rail is there for a gate, which reads the original's.
  const isOfColour = inHand !== undefined && inHand.first < passesBeforeMix(plan);
  const thing = confinedInHand({ plan, step });
  const hand = isOfColour && !thing?.gate ? undefined : inHand;
  const curve = useMemo(() => hand && curveOfPasses(plan, hand.first, hand.end), [plan, hand?.first, hand?.end]); // eslint-disable-line react-hooks/exhaustive-deps
  const x = useMemo(() => scaleLinear([0, LAST_ZONE], [LEFT, Math.max(width - RIGHT, LEFT + 100)]), [width]);
  const zoneAt = (event: { clientX: number }) => {
    const { left } = frame.current!.getBoundingClientRect();
    return Math.min(Math.max(x.invert(event.clientX - left), 0), LAST_ZONE);
  };
  const peek = (zone: Zone | undefined, isBefore: boolean) =>
    store.getState().set({
      look: zone === undefined ? { kind: "picture" } : { kind: "zone", zone },
      before: zone !== undefined && isBefore && hand ? "step" : undefined,
    });
  const lit = useBenchState((state) => (state.look.kind === "zone" ? state.look.zone : undefined));

  /** A press on the upper rail: what it does is the kind's affair. */
  const add = (event: PointerEvent) => {
    if (!pass || event.button !== 0) return;
    const from = event.altKey ? zoneAt(event) : snapZone(zoneAt(event));
    face?.pressScale?.(store, { pass, move: pass.move }, from);
  };

  const lift = useZoneLift(pass, zoneAt);
  const handlers = {
    peekBefore: useSteady((zone: Zone | undefined) => peek(zone, true)),
    peekAfter: useSteady((zone: Zone | undefined) => peek(zone, false)),
    add: useSteady(add),
  };

  return (
    <div ref={frame} className={styles.scale} data-testid="scale">
      {width > 0 && (
        <svg width={width} height={178} role="group" aria-label="Scale of zones">
          {hand && !isOfColour && <HistogramShape of="entering" x={x} base={TOP - RAIL} height={-HISTOGRAM_HEIGHT} />}
          {hand ? (
            <HistogramShape of="leaving" x={x} base={BOTTOM + RAIL} height={HISTOGRAM_HEIGHT - 8} />
          ) : (
            <HistogramShape of="finished" x={x} base={BOTTOM} height={-TALL_HISTOGRAM} />
          )}
          {curve && !isOfColour && <Threads curve={curve} x={x} />}
          {hand && !curve && face?.spreads && (
            <text className={styles.surroundings} x={x(LAST_ZONE / 2)} y={(TOP + BOTTOM) / 2 + 4}>
              {face.spreads}
            </text>
          )}
          {hand && (
            <Rail name="Falls" x={x} y={TOP - RAIL} lit={lit} off={pass?.zonesOff} onPeek={handlers.peekBefore} onPress={handlers.add} />
          )}
          <Rail name="Placed" x={x} y={BOTTOM} lit={lit} onPeek={handlers.peekAfter} {...lift} />
          <Shares of={hand ? "leaving" : "finished"} x={x} y={hand ? 173 : BOTTOM + RAIL + 15} />
          <Titles
            hand={hand}
            isOfColour={isOfColour}
            setName={chosenSet({ plan, step })?.name}
            number={hand && passNumber(plan, hand.first)}
          />
          <ReadingMarks x={x} both={!!hand} />
          {pass && face?.UnderGate && <face.UnderGate pass={pass} move={pass.move} x={x} zoneAt={zoneAt} />}
          {thing?.gate && <GateHill of={thing} gate={thing.gate} x={x} zoneAt={zoneAt} />}
          {pass && face?.OnScale && <face.OnScale pass={pass} move={pass.move} x={x} zoneAt={zoneAt} />}
        </svg>
      )}
    </div>
  );
}

interface TitlesProps {
  hand: ActivePasses | undefined;
  isOfColour: boolean;
  setName: string | undefined;
  number: string | undefined;
}

/** What the two rails stand for. */
function Titles({ hand, isOfColour, setName, number }: TitlesProps) {
  const what = setName ? "the set" : `pass ${number}`;
  const title = (words: string, smaller: string, y: number) => (
    <>
      <text className={styles.title} x={16} y={y}>
        {words}
      </text>
      <text className={styles.subtitle} x={16} y={y + 14}>
        {smaller}
      </text>
    </>
  );
  return (
    <>
      {hand && (isOfColour ? title("Lightness", "as found", TOP - 6) : title("Falls", `before ${what}`, TOP - 6))}
      {hand && !isOfColour ? title("Placed", `after ${what}`, BOTTOM + 7) : title("The print", "as it stands", BOTTOM + 7)}
    </>
  );
}
