import { useEffect, useRef, type RefObject } from "react";

/**
 * Turns what has the focus by the wheel; over anything else the wheel scrolls what it is over.
 * (React's own wheel listener is passive, and the page must not scroll while a slider turns.)
 */
export function useFocusedWheel(element: RefObject<HTMLElement | null>, onTurn: (isUp: boolean, isFast: boolean) => void) {
  const latest = useRef(onTurn);
  useEffect(() => {
    latest.current = onTurn;
  });
  useEffect(() => {
    const turned = element.current!;
    const onWheel = (event: WheelEvent) => {
      if (document.activeElement !== turned) return;
      event.preventDefault();
      latest.current(event.deltaY < 0, event.shiftKey);
    };
    turned.addEventListener("wheel", onWheel, { passive: false });
    return () => turned.removeEventListener("wheel", onWheel);
  }, [element]);
}
