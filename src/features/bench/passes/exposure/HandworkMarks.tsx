"use client";
import type { Pass } from "@/core/passes/pass";
import type { Size } from "@/core/spatial/areaReduce";
import { useBench } from "../../state/BenchContext";
import { softenThere } from "./handworkEdits";
import { PatchMarks } from "../../easel/PatchMarks";
import { useHandwork } from "../../easel/useHandwork";
import styles from "../../regions/RegionOverlay.module.css";

/** Most marks to be touched one by one; all of them are drawn. */
const MOST_TOUCHED = 24;

/** Lines round the places where handwork shows; a touch softens the strokes that make it. */
export function HandworkMarks({ pass, size }: { pass: Pass; size: Size }) {
  const { store } = useBench();
  const found = useHandwork(pass.id);
  if (!found) return null;
  const { patches, plane } = found;
  const [x, y] = [size.width / plane.width, size.height / plane.height];
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="handwork-marks">
      <PatchMarks patches={patches} of={plane} size={size} />
      {patches.slice(0, MOST_TOUCHED).map((patch) => {
        // The middle of a ring lies beside it: the mark stands on the cell in the middle of the list.
        const cell = patch.cells[Math.floor(patch.cells.length / 2)]!;
        const soften = () => softenThere(store, pass.id, [patch], plane);
        return (
          <g
            key={patch.cells[0]}
            transform={`translate(${((cell % plane.width) + 0.5) * x},${(Math.floor(cell / plane.width) + 0.5) * y})`}
            className={styles.touch}
            role="button"
            tabIndex={0}
            aria-label="Soften the strokes that show here"
            onPointerDown={(event) => {
              event.stopPropagation();
              soften();
            }}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              event.stopPropagation();
              soften();
            }}
          >
            <title>The hand shows here: touch to soften the strokes that make it</title>
            <circle r={11} className={styles.area} fill="transparent" />
            <circle r={5} className={styles.handle} />
            <path d="M-2.5,0.8q1.25,-2.6 2.5,0t2.5,0" className={styles.middle} />
          </g>
        );
      })}
    </svg>
  );
}
