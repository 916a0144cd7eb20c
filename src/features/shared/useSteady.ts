import { useCallback, useEffect, useRef } from "react";

/**
 * A handler that is the same over renders and does what the latest one does: for parts that are drawn anew only when they change. Not to be
 * called while rendering.
 */
export function useSteady<A extends unknown[], R>(handler: (...args: A) => R): (...args: A) => R {
  const latest = useRef(handler);
  useEffect(() => {
    latest.current = handler;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}
