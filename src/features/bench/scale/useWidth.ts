import { useLayoutEffect, useState, type RefObject } from "react";

/** The width of an element in CSS pixels, followed; 0 before the first layout. */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
