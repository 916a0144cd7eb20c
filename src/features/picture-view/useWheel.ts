import { useEffect, useRef, type RefObject } from "react";

/** Handles the wheel over an element, where React's own listener could not keep the page from scrolling. */
export function useWheel(element: RefObject<HTMLElement | null>, handle: (event: WheelEvent) => void): void {
  const latest = useRef(handle);
  useEffect(() => {
    latest.current = handle;
  });
  useEffect(() => {
    const target = element.current!;
    const listener = (event: WheelEvent) => latest.current(event);
    target.addEventListener("wheel", listener, { passive: false });
    return () => target.removeEventListener("wheel", listener);
  }, [element]);
}
