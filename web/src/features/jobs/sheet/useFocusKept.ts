import { useEffect, useRef } from "react";

/**
 * The place of whoever works by keys or hears the page: where what had the focus goes away, as a button does once it has
 * done its work, the focus goes on to the next thing to do, or to the step in hand.
 */
export function useFocusKept() {
  const sheet = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const root = sheet.current;
    if (!root) return;
    let last: Element | null = null;
    const remember = (event: FocusEvent) => {
      last = event.target as Element;
    };
    const look = () => {
      const lost = last !== null && !last.isConnected && document.activeElement === document.body;
      if (!lost) return;
      last = null;
      const place = root.querySelector<HTMLElement>("section[aria-label='Next']") ?? root.querySelector("h2");
      place?.setAttribute("tabindex", "-1");
      place?.focus({ preventScroll: true });
    };
    const watch = new MutationObserver(look);
    root.addEventListener("focusin", remember);
    watch.observe(root, { childList: true, subtree: true });
    return () => {
      watch.disconnect();
      root.removeEventListener("focusin", remember);
    };
  }, []);
  return sheet;
}
