import { useLayoutEffect, useState, type RefObject } from "react";
import type { Size } from "@/core/spatial/areaReduce";

/** The size of an element, followed. Units: CSS pixels; 0 until it is laid out. */
export function useSizeOf(element: RefObject<HTMLElement | null>): Size {
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return size;
}
