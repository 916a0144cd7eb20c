"use client";
import type { Pass } from "@/core/plan/plan";
import { ZONE_COUNT, zoneNumeral } from "@/core/zones/zone";
import { useBench } from "../BenchContext";
import { withPass } from "../benchStore";
import styles from "./Panel.module.css";

const ZONES = [...Array(ZONE_COUNT).keys()];

/** The zones a pass acts on; one switched off keeps its tones as they come. */
export function ZoneSwitches({ pass }: { pass: Pass }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const change = (zonesOff: number[], label: string) => {
    adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, zonesOff })));
    commit(`${label} in ${pass.name}`);
  };
  const toggle = (zone: number) => {
    const isOff = pass.zonesOff.includes(zone);
    const zonesOff = isOff ? pass.zonesOff.filter((other) => other !== zone) : [...pass.zonesOff, zone].sort((a, b) => a - b);
    change(zonesOff, `Zone ${zoneNumeral(zone)} ${isOff ? "on" : "off"}`);
  };
  const off = pass.zonesOff.length;
  return (
    <>
      <div className={styles.zones} role="group" aria-label="Zones the pass acts on">
        {ZONES.map((zone) => (
          <button
            key={zone}
            type="button"
            className={styles.zone}
            aria-pressed={!pass.zonesOff.includes(zone)}
            aria-label={`Zone ${zoneNumeral(zone)}`}
            data-testid={`zone-switch-${zone}`}
            onClick={() => toggle(zone)}
            onDoubleClick={() =>
              change(
                ZONES.filter((other) => other !== zone),
                `Zone ${zoneNumeral(zone)} alone`,
              )
            }
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
