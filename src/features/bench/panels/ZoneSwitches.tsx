"use client";
import type { Pass } from "@/core/passes/pass";
import { useRef, type HTMLAttributes } from "react";
import { ZONE_COUNT, zoneNumeral } from "@/core/zones/zone";
import { useBench } from "../state/BenchContext";
import { withPass } from "../state/inPlan";
import styles from "./Panel.module.css";
import type { Zone } from "@/core/units";

const ZONES = [...Array(ZONE_COUNT).keys()];

/** The zones a pass acts on; one switched off keeps its tones as they come. */
export function ZoneSwitches({ pass }: { pass: Pass }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const change = (zonesOff: number[], label: string) => {
    adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, zonesOff })));
    commit(`${label} in ${pass.name}`);
  };
  const toggle = (zone: Zone) => {
    const isOff = pass.zonesOff.includes(zone);
    const zonesOff = isOff ? pass.zonesOff.filter((other) => other !== zone) : [...pass.zonesOff, zone].sort((a, b) => a - b);
    change(zonesOff, `Zone ${zoneNumeral(zone)} ${isOff ? "on" : "off"}`);
  };
  const sweep = useSweep(
    (zones) => adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, zonesOff: allBut(zones) }))),
    ([from, to]) =>
      commit(`${from === to ? `Zone ${zoneNumeral(from)}` : `Zones ${zoneNumeral(from)} to ${zoneNumeral(to)}`} alone in ${pass.name}`),
  );
  const off = pass.zonesOff.length;
  return (
    <>
      <div
        className={styles.zones}
        role="group"
        aria-label="Zones the pass acts on"
        title="Press to switch one, drag across to take just those, double click for one alone"
        {...sweep}
      >
        {ZONES.map((zone) => (
          <button
            key={zone}
            type="button"
            className={styles.zone}
            aria-pressed={!pass.zonesOff.includes(zone)}
            aria-label={`Zone ${zoneNumeral(zone)}`}
            data-testid={`zone-switch-${zone}`}
            data-zone={zone}
            onClick={() => toggle(zone)}
            onDoubleClick={() => change(allBut([zone, zone]), `Zone ${zoneNumeral(zone)} alone`)}
          >
            {zoneNumeral(zone)}
          </button>
        ))}
      </div>
      {off > 0 && (
        <div className={styles.row}>
          <button type="button" className={styles.small} onClick={() => change([], "All zones on")}>
            All on
          </button>
          <button
            type="button"
            className={styles.small}
            onClick={() =>
              change(
                ZONES.filter((zone) => !pass.zonesOff.includes(zone)),
                "Zones on and off exchanged",
              )
            }
          >
            Exchange
          </button>
        </div>
      )}
    </>
  );
}

/** From one zone to another. */
type Zones = [from: number, to: number];

const allBut = ([from, to]: Zones) => ZONES.filter((zone) => zone < from || zone > to);

/** A drag across the switches, from the zone it began on; a press that stays on one is none. */
function useSweep(onSwept: (zones: Zones) => void, onEnd: (zones: Zones) => void): HTMLAttributes<HTMLElement> {
  const begun = useRef<number | undefined>(undefined);
  const swept = useRef<Zones | undefined>(undefined);
  const end = () => {
    if (swept.current) onEnd(swept.current);
    begun.current = swept.current = undefined;
  };
  return {
    onPointerDown: (event) => {
      if (event.button === 0) begun.current = zoneUnder(event);
    },
    onPointerMove: (event) => {
      if (!(event.buttons & 1)) begun.current = undefined; // let go elsewhere
      const zone = begun.current === undefined ? undefined : zoneUnder(event);
      if (zone === undefined || (zone === begun.current && !swept.current)) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      swept.current = [Math.min(begun.current!, zone), Math.max(begun.current!, zone)];
      onSwept(swept.current);
    },
    onPointerUp: end,
    onLostPointerCapture: end,
  };
}

function zoneUnder({ clientX, clientY }: { clientX: number; clientY: number }): number | undefined {
  const zone = document.elementFromPoint(clientX, clientY)?.closest<HTMLElement>("[data-zone]")?.dataset.zone;
  return zone === undefined ? undefined : Number(zone);
}
