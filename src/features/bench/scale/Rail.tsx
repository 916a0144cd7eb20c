import { memo, type PointerEvent } from "react";
import { toneToLuminance } from "@/core/colour/lstar";
import { srgbEncode } from "@/core/colour/transferCurve";
import { LAST_ZONE, ZONE_COUNT, zoneNumeral } from "@/core/zones/zone";
import { RAIL, type X } from "./scaleGeometry";
import styles from "./Scale.module.css";
import type { Zone } from "@/core/units";

interface RailProps {
  name: string;
  x: X;
  y: number;
  lit: number | undefined;
  /** Zones whose tones the pass leaves alone: hatched. */
  off?: readonly number[];
  onPeek(zone: Zone | undefined): void;
  onPress(event: PointerEvent, zone: Zone): void;
  onPull?(event: PointerEvent): void;
  onRelease?(): void;
}

/** Eleven zones side by side, each as grey as it is. */
export const Rail = memo(function Rail({ name, x, y, lit, off = NONE, onPeek, onPress, onPull, onRelease }: RailProps) {
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
            {off.includes(zone) && (
              <path d={hatch(x(from), x(to), y)} className={styles.offZone} data-testid={`off-${zone}`}>
                <title>{`Zone ${zoneNumeral(zone)} is switched off in this pass`}</title>
              </path>
            )}
            <text x={x(middle)} y={y + 11} fill={zone > 5 ? "#19191b" : "#f3f1ed"}>
              {zoneNumeral(zone)}
            </text>
          </g>
        );
      })}
    </g>
  );
});

const NONE: readonly number[] = [];

function greyOf(zone: Zone): string {
  const level = Math.round(255 * srgbEncode(toneToLuminance(zone / LAST_ZONE)));
  return `rgb(${level} ${level} ${level})`;
}

const HATCH_PITCH = 7;

/** Oblique lines across a zone. */
function hatch(left: number, right: number, top: number): string {
  let path = "";
  for (let at = left + 2; at + RAIL < right; at += HATCH_PITCH) path += `M${at.toFixed(1)},${top + RAIL}l${RAIL},${-RAIL}`;
  return path;
}
