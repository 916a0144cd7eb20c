import { useEffect, useState } from "react";
import { isTyping } from "@/features/shared/isTyping";

/**
 * Whether the space bar is held to move the picture. It presses what has the focus, but not what was clicked last and has it from that.
 */
export function useSpaceKey(): [boolean, (held: boolean) => void] {
  const [isHeld, setHeld] = useState(false);
  useEffect(() => {
    let clicked: EventTarget | null = null;
    let isDownHere = false;
    const onPress = (event: Event) => (clicked = event.target);
    const onDown = (event: KeyboardEvent) => {
      if (event.key === "Tab") clicked = null;
      const focused = event.target as HTMLElement;
      const isForFocused = focused.matches("button, a, input, [role]:not([role=application])") && !focused.contains(clicked as Node | null);
      if (event.key !== " " || isTyping(event.target) || isForFocused) return;
      event.preventDefault();
      isDownHere = true;
      setHeld(true);
    };
    // A button that was clicked last would be pressed by the release of the key.
    const onUp = (event: KeyboardEvent) => {
      if (event.key !== " ") return;
      if (isDownHere) event.preventDefault();
      isDownHere = false;
      setHeld(false);
    };
    window.addEventListener("pointerdown", onPress, true);
    window.addEventListener("keydown", onDown, true);
    window.addEventListener("keyup", onUp, true);
    return () => {
      window.removeEventListener("pointerdown", onPress, true);
      window.removeEventListener("keydown", onDown, true);
      window.removeEventListener("keyup", onUp, true);
    };
  }, []);
  return [isHeld, setHeld];
}
