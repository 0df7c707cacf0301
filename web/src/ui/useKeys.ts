import { useEffect, useRef } from "react";

/**
 * Keys that do something on a page, by their letter. A key that is held does it once; nothing happens while somebody types, chooses
 * among several or has a dialog open, or where another key is held with it.
 */
export function useKeys(does: Record<string, () => void>, on = true) {
  const now = useRef(does);
  useEffect(() => {
    now.current = does;
  });
  useEffect(() => {
    if (!on) return;
    const press = (event: KeyboardEvent) => {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const at = event.target instanceof Element ? event.target : document.body;
      if (at.closest("input, textarea, select, [contenteditable], [role=group], [role=dialog]")) return;
      if (document.querySelector("[role=dialog], [role=alertdialog]")) return;
      now.current[event.key.toLowerCase()]?.();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [on]);
}
