"use client";
import { Button } from "antd";
import { area } from "d3";
import { gateShare, type Gate } from "@/core/gate/gate";
import { READY_GATES, ZONE_GATES, type ReadyGate } from "@/core/gate/readyGates";
import { LAST_ZONE } from "@/core/zones/zone";
import { Menu } from "@/features/shared/Menu";
import styles from "./ReadyGates.module.css";

const READY = [...READY_GATES, ...ZONE_GATES];
const COLUMNS = 3;
const WIDTH = 72;
const HEIGHT = 16;
const STEPS = 60;

const ITEMS = READY.map(({ name, gate }) => ({
  key: name,
  label: (
    <span className={styles.offer}>
      <svg width={WIDTH} height={HEIGHT} aria-hidden className={styles.hill}>
        <path d={hillOf(gate)} />
        <line x2={WIDTH} y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} />
      </svg>
      {name}
    </span>
  ),
}));

/** Gates to begin with, each shown as the hill it makes on the scale. */
export function ReadyGates({ onPick }: { onPick(ready: ReadyGate): void }) {
  return (
    <Menu columns={COLUMNS} items={ITEMS} onPick={(key) => onPick(READY.find(({ name }) => name === key)!)}>
      <Button size="small" data-testid="ready-gates">
        Ready gates
      </Button>
    </Menu>
  );
}

function hillOf(gate: Gate): string {
  const hill = area<number>()
    .x((step) => (WIDTH * step) / STEPS)
    .y0(HEIGHT)
    .y1((step) => HEIGHT - (HEIGHT - 2) * gateShare(gate, (LAST_ZONE * step) / STEPS));
  return hill(Array.from({ length: STEPS + 1 }, (_, step) => step)) ?? "";
}
