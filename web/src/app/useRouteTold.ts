import { useEffect, useRef } from "react";

const NAME = "Worthy Twin";

/** A page that was gone to says so: the window is called after its heading, and the focus is at its beginning. */
export function useRouteTold(page: string) {
  const before = useRef(page);
  useEffect(() => {
    const root = document.getElementById("page");
    if (!root) return;
    // where the application opens nothing is moved; a field that takes the focus by itself keeps it
    const gone = before.current !== "" && before.current !== page;
    if (gone && !root.contains(document.activeElement)) root.focus({ preventScroll: true });
    before.current = page;
    const call = () => {
      const heading = root.querySelector("h1")?.textContent?.trim();
      const title = heading ? `${heading} – ${NAME}` : NAME;
      if (document.title !== title) document.title = title;
    };
    call();
    // a heading comes with what the page asks for, and may change with it
    const watch = new MutationObserver(call);
    watch.observe(root, { childList: true, subtree: true, characterData: true });
    return () => watch.disconnect();
  }, [page]);
}
