import { useEffect, useState } from "react";

/** Whether the hand is at work in the panel or on the scale: nothing may lie over the picture then. */
export function useWorkingElsewhere(): boolean {
  const [isWorking, setWorking] = useState(false);
  useEffect(() => {
    const onDown = (event: Event) => setWorking(!!(event.target as Element).closest?.('aside, [data-testid="scale"]'));
    const onUp = () => setWorking(false);
    window.addEventListener("pointerdown", onDown, true);
    window.addEventListener("pointerup", onUp, true);
    window.addEventListener("pointercancel", onUp, true);
    return () => {
      window.removeEventListener("pointerdown", onDown, true);
      window.removeEventListener("pointerup", onUp, true);
      window.removeEventListener("pointercancel", onUp, true);
    };
  }, []);
  return isWorking;
}
