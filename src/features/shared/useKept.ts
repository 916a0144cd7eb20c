import { useCallback, useSyncExternalStore } from "react";

const PREFIX = "nigrographe.";
const listeners = new Set<() => void>();
const known = new Map<string, unknown>();

/**
 * A setting that this browser remembers for all prints, and how to change it. `read` makes one of whatever was kept, be it nothing or what
 * others wrote; it is the same function from call to call.
 */
export function useKept<T>(name: string, read: (json: unknown) => T): [value: T, set: (value: T) => void] {
  const subscribe = useCallback((listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, []);
  const now = () => {
    if (!known.has(name)) known.set(name, read(stored(name)));
    return known.get(name) as T;
  };
  const value = useSyncExternalStore(subscribe, now, () => first(name, read));
  const set = (to: T) => {
    known.set(name, to);
    try {
      localStorage.setItem(PREFIX + name, JSON.stringify(to));
    } catch {
      // A browser that keeps nothing: it holds for as long as the page does.
    }
    listeners.forEach((listener) => listener());
  };
  return [value, set];
}

const atFirst = new Map<string, unknown>();

/** What the server draws, which knows of no browser's settings. */
function first<T>(name: string, read: (json: unknown) => T): T {
  if (!atFirst.has(name)) atFirst.set(name, read(undefined));
  return atFirst.get(name) as T;
}

function stored(name: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(PREFIX + name) ?? "null");
  } catch {
    return null;
  }
}
