"use client";
import type { Pass } from "@/core/passes/pass";
import { useBench } from "../state/BenchContext";
import { softenThere } from "../passes/exposure/handworkEdits";
import { placeList } from "../easel/placeWords";
import { useHandwork } from "../easel/useHandwork";
import styles from "./Panel.module.css";

/** Says where handwork shows, with the way out. */
export function HandworkHint({ pass }: { pass: Pass }) {
  const { store } = useBench();
  const found = useHandwork(pass.id);
  if (!found) return null;
  const { patches } = found;
  if (patches.length === 0) return <p className={styles.hint}>The hand shows nowhere in this pass.</p>;
  return (
    <>
      <p className={styles.hint} data-testid="handwork-hint">
        The hand shows {patches.length === 1 ? "in one place" : `in ${patches.length} places`}: {placeList(patches)}. Touch a mark to soften
        the strokes that make it.
      </p>
      <div className={styles.row}>
        <button type="button" className={styles.small} onClick={() => softenThere(store, pass.id, patches, found.plane)}>
          Soften them all
        </button>
      </div>
    </>
  );
}
