"use client";
import { useMemo } from "react";
import type { Patch } from "@/core/region/patches";
import type { Size } from "@/core/spatial/areaReduce";
import { markedPlane, planeLines } from "./planeLines";
import styles from "../regions/RegionOverlay.module.css";

/** Lines round patches of a small plane. */
export function PatchMarks({ patches, of, size }: { patches: readonly Patch[]; of: Size; size: Size }) {
  const path = useMemo(() => {
    const cells = patches.flatMap((patch) => patch.cells);
    return planeLines(markedPlane(cells, of), [0.5], size)[0];
  }, [patches, of, size.width, size.height]); // eslint-disable-line react-hooks/exhaustive-deps
  return <path d={path} className={styles.patch} />;
}
