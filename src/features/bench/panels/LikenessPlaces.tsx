"use client";
import { CloseOutlined } from "@ant-design/icons";
import { useMemo } from "react";
import type { LikenessShape } from "@/core/region/region";
import { useBench } from "../state/BenchContext";
import { ninthOf, PLACE_NAMES } from "../easel/placeWords";
import { SIDE_WORDS, takeBackSweep } from "../regions/sweepEdits";
import { sweepsOf, type Sweep } from "../regions/sweeps";
import styles from "./Panel.module.css";

/** Where a likeness was touched, sweep by sweep; each can be taken back. */
export function LikenessPlaces({ shape }: { shape: LikenessShape }) {
  const { store, start } = useBench();
  const { width, height } = start.prepared.levels[0]!;
  const long = Math.max(width, height);
  const sweeps = useMemo(() => sweepsOf(shape), [shape]);
  const where = ({ places }: Sweep) => {
    const { x, y } = places[Math.floor(places.length / 2)]!;
    return PLACE_NAMES[ninthOf((x * long) / width, (y * long) / height)]!;
  };
  return (
    <ul className={styles.sweeps} aria-label="Where it was touched">
      {sweeps.map((sweep) => (
        <li key={`${sweep.side} ${sweep.from}`} className={styles.row}>
          <span className={`${styles.hint} ${styles.grow}`}>
            {SIDE_WORDS[sweep.side]}, {where(sweep)}
          </span>
          <button
            type="button"
            className={styles.small}
            aria-label={`Take back ${SIDE_WORDS[sweep.side].toLowerCase()}, ${where(sweep)}`}
            onClick={() => takeBackSweep(store, shape, sweep)}
          >
            <CloseOutlined />
          </button>
        </li>
      ))}
    </ul>
  );
}
