import { useCallback, useSyncExternalStore } from "react";

// Which parts of panels are folded to one line: remembered by this browser, for all prints.

const KEY = "nigrographe.folded";
const listeners = new Set<() => void>();
let known: Record<string, boolean> | undefined;

function folds(): Record<string, boolean> {
  if (known) return known;
  try {
    const read: unknown = JSON.parse(localStorage.getItem(KEY) ?? "{}");
    known = typeof read === "object" && read !== null ? (read as Record<string, boolean>) : {};
  } catch {
    known = {}; // a browser that keeps nothing, or what others wrote
  }
  return known;
}

/** Whether a part is folded, and how to change that. */
export function useFolded(title: string, atFirst: boolean): [isFolded: boolean, setFolded: (isFolded: boolean) => void] {
  const subscribe = useCallback((listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, []);
  const read = () => {
    const folded = folds()[title];
    return typeof folded === "boolean" ? folded : atFirst;
  };
  const isFolded = useSyncExternalStore(subscribe, read, () => atFirst);
  const setFolded = (folded: boolean) => {
    known = { ...folds(), [title]: folded };
    try {
      localStorage.setItem(KEY, JSON.stringify(known));
    } catch {
      // It holds for as long as the page does.
    }
    listeners.forEach((listener) => listener());
  };
  return [isFolded, setFolded];
}
