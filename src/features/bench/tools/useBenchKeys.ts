import { useEffect, type RefObject } from "react";
import type { BenchStore } from "../state/benchStore";
import { isTyping } from "../../shared/isTyping";
import { keyOf, releaseAll, type ViewActions } from "./keys";

/** The bench's keys, wherever the focus is, except while something is typed. */
export function useBenchKeys(store: BenchStore, view: RefObject<ViewActions | null>, help: () => void): void {
  useEffect(() => {
    const onDown = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.altKey) return;
      const key = keyOf(event);
      if (!key || (event.repeat && !key.ctrl && !isZoom(event.key))) return;
      if (key.ctrl) event.preventDefault();
      key.act({ store, view: view.current ?? undefined, help }, event.key);
    };
    const onUp = (event: KeyboardEvent) =>
      keyOf({ key: event.key, ctrlKey: false, metaKey: false, shiftKey: event.shiftKey })?.release?.(store);
    const onBlur = () => releaseAll(store);
    window.addEventListener("keydown", onDown);
    window.addEventListener("keyup", onUp);
    window.addEventListener("blur", onBlur);
    return () => {
      window.removeEventListener("keydown", onDown);
      window.removeEventListener("keyup", onUp);
      window.removeEventListener("blur", onBlur);
    };
  }, [store, view, help]);
}

const isZoom = (key: string) => /^[+=-]$/.test(key);
