"use client";
import { area, curveBasis, line, scaleLinear } from "d3";
import { useMemo, useRef, type PointerEvent } from "react";
import { HUE_STOPS_LIMIT, hueCurve, type HueKnot } from "@/core/mix/hueCurve";
import { formatStops } from "@/core/zones/zone";
import { useBench, useBenchState } from "../state/BenchContext";
import { seenPlan } from "../state/inPlan";
import { hueCss } from "./hueCss";
import { setKnot } from "./hueEdits";
import { HueKnots } from "./HueKnots";
import { useWidth } from "./useWidth";
import styles from "./HueLine.module.css";

const LEFT = 118;
const RIGHT = 26;
const MIDDLE = 82;
const HALF_HEIGHT = 62;
const BAND_TOP = 156;
const BAND_HEIGHT = 10;

/** The hue line: hues unrolled, how much of each the picture holds, and the response in stops above. */
export function HueLine() {
  const { store } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const { hueKnots: knots, huesOn } = useBenchState((state) => seenPlan(state).mix);
  const shares = useBenchState((state) => state.hueShares);
  const reading = useBenchState((state) => state.reading);
  const x = useMemo(() => scaleLinear([0, 360], [LEFT, Math.max(width - RIGHT, LEFT + 100)]), [width]);
  const y = useMemo(() => scaleLinear([-HUE_STOPS_LIMIT, HUE_STOPS_LIMIT], [MIDDLE + HALF_HEIGHT, MIDDLE - HALF_HEIGHT]), []);

  const placeOf = (event: { clientX: number; clientY: number }): HueKnot => {
    const { left, top } = frame.current!.getBoundingClientRect();
    return { hueDeg: x.invert(event.clientX - left), stops: y.invert(event.clientY - top) };
  };
  const onAdd = (event: PointerEvent<SVGElement>) => {
    if (event.button !== 0) return;
    const { hueDeg } = placeOf(event);
    if (hueDeg < 0 || hueDeg >= 360) return;
    setKnot(store, hueDeg);
  };
  const curve = useMemo(() => hueCurve(huesOn ? knots : []), [knots, huesOn]);
  const response = useMemo(
    () =>
      line<number>()
        .x(x)
        .y((hue) => y(curve(hue)))(degrees(2)) ?? "",
    [curve, x, y],
  );
  return (
    <div ref={frame} className={styles.hueLine} data-testid="hue-line">
      {width > 0 && (
        <svg width={width} height={178} role="group" aria-label="Hue line">
          <text className={styles.title} x={16} y={42}>
            Hues
          </text>
          <text className={styles.words} x={16} y={57}>
            lighter, darker
          </text>
          <text className={styles.words} x={16} y={71}>
            in stops
          </text>
          <HueBand x={x} />
          <Shares shares={shares} x={x} />
          {[-3, -2, -1, 0, 1, 2, 3].map((stops) => (
            <g key={stops} className={stops === 0 ? styles.zero : styles.grid}>
              <line x1={x(0)} x2={x(360)} y1={y(stops)} y2={y(stops)} />
              <text x={x(0) - 10} y={y(stops) + 4}>
                {formatStops(stops)}
              </text>
            </g>
          ))}
          <rect
            className={styles.ground}
            x={x(0)}
            y={y(HUE_STOPS_LIMIT)}
            width={x(360) - x(0)}
            height={BAND_TOP + BAND_HEIGHT - y(HUE_STOPS_LIMIT)}
            onPointerDown={onAdd}
          >
            <title>Click to add a knot</title>
          </rect>
          <path className={styles.response} d={response} />
          {reading && reading.chroma >= 0.01 && (
            <line
              className={styles.reading}
              x1={x(reading.hueDeg)}
              x2={x(reading.hueDeg)}
              y1={y(HUE_STOPS_LIMIT)}
              y2={BAND_TOP + BAND_HEIGHT}
            />
          )}
          <HueKnots x={x} y={y} bottom={BAND_TOP} placeOf={placeOf} />
        </svg>
      )}
    </div>
  );
}

function HueBand({ x }: { x: (hue: number) => number }) {
  return degrees(2)
    .slice(0, -1)
    .map((hue) => <rect key={hue} x={x(hue)} y={BAND_TOP} width={x(2) - x(0) + 0.6} height={BAND_HEIGHT} fill={hueCss(hue + 1)} />);
}

/** Height of the hue the picture holds most of; others follow by the square root, so that small ones show. */
const SHARE_HEIGHT = 44;

function Shares({ shares, x }: { shares: Float32Array | undefined; x: (hue: number) => number }) {
  const path = useMemo(() => {
    if (!shares) return "";
    const most = Math.max(...shares) || 1;
    const shape = area<number>()
      .x((_, i) => x(((i + 0.5) / shares.length) * 360))
      .y0(BAND_TOP)
      .y1((share) => BAND_TOP - SHARE_HEIGHT * Math.sqrt(share / most))
      .curve(curveBasis);
    return shape([...shares]) ?? "";
  }, [shares, x]);
  return <path className={styles.shares} d={path} data-testid="hue-shares" />;
}

function degrees(step: number): number[] {
  return Array.from({ length: 360 / step + 1 }, (_, i) => i * step);
}
