"use client";
import { useBench, useBenchState } from "../state/BenchContext";
import { PATCH_SIZES } from "../state/benchStore";
import styles from "../panels/Panel.module.css";

/** How large a patch of the picture a colour is picked from. */
export function PatchSize() {
  const { store } = useBench();
  const patch = useBenchState((state) => state.patch);
  return (
    <span role="group" aria-label="Size of the patch" className={styles.chips}>
      {PATCH_SIZES.map((size) => (
        <button
          key={size}
          type="button"
          className={styles.chip}
          aria-pressed={patch === size}
          onClick={() => store.getState().set({ patch: size })}
        >
          {size}
        </button>
      ))}
    </span>
  );
}
