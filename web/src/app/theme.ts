import { useEffect, useState } from "react";

export type Theme = "device" | "light" | "dark";
const KEY = "worthy-twin-theme";

function chosen(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === "light" || kept === "dark" ? kept : "device";
}

function show(theme: Theme) {
  const dark = theme === "dark" || (theme === "device" && matchMedia("(prefers-color-scheme: dark)").matches);
  document.documentElement.dataset.theme = dark ? "dark" : "light";
}

/** Show the theme that was chosen, or the device's, and follow the device. */
export function startTheme() {
  show(chosen());
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", () => show(chosen()));
}

export function useTheme() {
  const [theme, setTheme] = useState(chosen);
  useEffect(() => {
    localStorage.setItem(KEY, theme);
    show(theme);
  }, [theme]);
  return [theme, setTheme] as const;
}
