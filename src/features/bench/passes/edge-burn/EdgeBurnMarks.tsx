"use client";
import type { Pass } from "@/core/passes/pass";
import { useMemo } from "react";
import { edgeShare, MOST_SHIFT } from "@/core/passes/edge-burn/edgeBurn";
import type { EdgeBurnMove } from "@/core/passes/edge-burn/move";
import { wholeGrid } from "@/core/spatial/grid";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { DragPoint } from "../../easel/DragPoint";
import { PatchMarks } from "../../easel/PatchMarks";
import { planeLines } from "../../easel/planeLines";
import { useBrightAtFrame } from "../../easel/useBrightAtFrame";
import styles from "../../regions/RegionOverlay.module.css";

const LINE_CELLS = 200;
/**
 * Where all but this much is left, so that it begins to be seen, and where half is. Lines round what is left do not run along the frame.
 */
const LEFT = [0.98, 0.5] as const;

/** An edge burn over the print: where it begins, where it is halfway, and its middle to be moved. */
export function EdgeBurnMarks({ pass, move, size }: { pass: Pass; move: EdgeBurnMove; size: Size }) {
  const { store } = useBench();
  const showsBright = useBenchState((state) => state.showsBright);
  const { x, y, begins, straight } = move;
  const lines = useMemo(() => {
    const cells = fitLongEdge(size, LINE_CELLS);
    const left = edgeShare({ x, y, begins, straight }, wholeGrid(cells)).map((share) => 1 - share);
    return planeLines({ plane: left, ...cells }, LEFT, size);
  }, [x, y, begins, straight, size.width, size.height]); // eslint-disable-line react-hooks/exhaustive-deps
  const long = Math.max(size.width, size.height);
  const [middleX, middleY] = [size.width / 2 / long, size.height / 2 / long];
  const bounded = (value: number) => Math.min(Math.max(value, -MOST_SHIFT), MOST_SHIFT);
  const shift = (to: { x: number; y: number }) =>
    store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, x: bounded(to.x - middleX), y: bounded(to.y - middleY) }));
  const label = `Middle of ${pass.name} moved`;
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="edge-burn-marks">
      <path d={lines[0]} className={styles.edge} />
      <path d={lines[1]} className={styles.middle} />
      {showsBright && <BrightMarks size={size} />}
      <DragPoint
        long={long}
        at={{ x: middleX + x, y: middleY + y }}
        name="Middle of the edge burn: move it; double click brings it to the middle of the print"
        onMove={shift}
        onEnd={() => store.getState().commit(label)}
        onRest={() => store.getState().commitSoon(label)}
        onDoubleClick={() => {
          shift({ x: middleX, y: middleY });
          store.getState().commit(label);
        }}
      >
        <path d="M-8,0H8M0,-8V8" className={styles.middle} />
        <circle r={4.5} className={styles.handle} />
      </DragPoint>
    </svg>
  );
}

function BrightMarks({ size }: { size: Size }) {
  const found = useBrightAtFrame();
  if (!found || found.patches.length === 0) return null;
  return (
    <g data-testid="bright-marks">
      <PatchMarks patches={found.patches} of={found.plane} size={size} />
    </g>
  );
}
