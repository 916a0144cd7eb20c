"use client";
import { CloseOutlined } from "@ant-design/icons";
import { useState } from "react";
import { toneToStops } from "@/core/colour/lstar";
import { formatStops, formatZone, LAST_ZONE, toThird, zoneNumeral } from "@/core/zones/zone";
import { zoneShares } from "@/core/zones/zoneShares";
import { useBench, useBenchState } from "../state/BenchContext";
import { formatShare } from "./formatShare";
import { setPins } from "./Pins";
import styles from "./Pins.module.css";
import type { Tone } from "@/core/units";

/** What is kept in view as one works: the pins' tones, and how much of the picture lies in each zone. */
export function Readings() {
  const pins = useBenchState((state) => state.pins);
  const [opened, setOpened] = useState<"pins" | "zones" | "none">();
  const shown = opened ?? (pins.length > 0 ? "pins" : "none");
  const tab = (name: "pins" | "zones", words: string) => (
    <button type="button" aria-expanded={shown === name} onClick={() => setOpened(shown === name ? "none" : name)}>
      {words}
    </button>
  );
  return (
    <div
      className={styles.card}
      data-testid="readings"
      onPointerDown={(event) => event.stopPropagation()}
      onWheel={(event) => event.stopPropagation()}
    >
      <div className={styles.tabs}>
        {tab("pins", pins.length ? `Pins ${pins.length}` : "Pins")}
        {tab("zones", "Zones")}
      </div>
      {shown === "pins" && <PinTable />}
      {shown === "zones" && <ZoneTable />}
    </div>
  );
}

function PinTable() {
  const bench = useBench();
  const pins = useBenchState((state) => state.pins);
  const readings = useBenchState((state) => state.pinReadings);
  if (pins.length === 0)
    return <p className={styles.hint}>Choose Pin on the left and touch the places whose tones you want to keep an eye on.</p>;
  return (
    <table data-testid="pin-table">
      <thead>
        <tr>
          <th />
          <th>Now</th>
          <th>Was</th>
          <th>L*</th>
          <th>From V</th>
          <th>Print</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {pins.map((pin, i) => {
          const reading = readings[i];
          const zone = (tone: Tone) => formatZone(toThird(tone * LAST_ZONE));
          return (
            <tr key={`${pin.x} ${pin.y}`}>
              <td>{i + 1}</td>
              <td className={styles.zone}>{reading ? zone(reading.leaving) : "…"}</td>
              <td className={styles.zone}>{reading && zone(reading.entering)}</td>
              <td>{reading && (100 * reading.leaving).toFixed(1)}</td>
              <td>{reading && formatStops(toThird(toneToStops(reading.leaving)))}</td>
              <td className={styles.zone}>{reading && zone(reading.finished)}</td>
              <td>
                <button
                  type="button"
                  className={styles.away}
                  aria-label={`Take pin ${i + 1} away`}
                  onClick={() => setPins(bench, pins.toSpliced(i, 1))}
                >
                  <CloseOutlined />
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function ZoneTable() {
  const measured = useBenchState((state) => state.measured);
  if (!measured) return <p className={styles.hint}>Counting…</p>;
  const [entering, leaving, finished] = [measured.entering, measured.leaving, measured.finished].map((counts) => zoneShares(counts)) as [
    number[],
    number[],
    number[],
  ];
  return (
    <table data-testid="zone-table">
      <thead>
        <tr>
          <th>Zone</th>
          <th>Falls</th>
          <th>Placed</th>
          <th>Print</th>
        </tr>
      </thead>
      <tbody>
        {finished.map((share, zone) => (
          <tr key={zone}>
            <td className={styles.zone}>{zoneNumeral(zone)}</td>
            <td>{formatShare(entering[zone]!)}</td>
            <td>{formatShare(leaving[zone]!)}</td>
            <td>{formatShare(share)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
