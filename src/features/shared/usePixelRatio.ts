import { useSyncExternalStore } from "react";

/**
 * Device pixels to a CSS pixel. The server takes them for 1, so the first picture of the page does too; followed from screen to screen,
 * where a window is laid out anew.
 */
export function usePixelRatio(): number {
  return useSyncExternalStore(
    subscribe,
    () => devicePixelRatio,
    () => 1,
  );
}

function subscribe(onChange: () => void): () => void {
  window.addEventListener("resize", onChange);
  return () => window.removeEventListener("resize", onChange);
}
