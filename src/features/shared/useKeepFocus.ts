import { useEffect } from "react";

/**
 * Keeps the focus on the page where what had it goes away: it falls to the next that can take it around the place, or else to the part of
 * the page that held it. Without, keys begin at the top of the page again, and who hears the page instead of seeing it is lost.
 */
export function useKeepFocus(): void {
  useEffect(() => {
    let last: { element: Element; around: Element[] } | undefined;
    const onFocus = ({ target }: FocusEvent) => {
      const element = target as Element;
      const around: Element[] = [];
      for (let outer = element.parentElement; outer && outer !== document.body; outer = outer.parentElement) around.push(outer);
      last = { element, around };
    };
    // Who points has no need of it, and keys after a press belong to the page.
    let isByKeys = false;
    const onKey = () => (isByKeys = true);
    const onPress = () => (isByKeys = false);
    const observer = new MutationObserver(() => {
      if (!isByKeys || !last || last.element.isConnected || document.activeElement !== document.body) return;
      const { around } = last;
      last = undefined;
      const near = around.find((outer) => outer.isConnected && (outer.matches(ABLE) || outer.querySelector(ABLE)));
      const heir = near?.matches(ABLE) ? near : near?.querySelector(ABLE);
      (heir as HTMLElement | SVGElement | undefined | null)?.focus({ preventScroll: true });
    });
    window.addEventListener("focusin", onFocus);
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("pointerdown", onPress, true);
    observer.observe(document.body, { childList: true, subtree: true });
    return () => {
      window.removeEventListener("focusin", onFocus);
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("pointerdown", onPress, true);
      observer.disconnect();
    };
  }, []);
}

const ABLE = "button:not(:disabled), a[href], input:not(:disabled), [tabindex]";
