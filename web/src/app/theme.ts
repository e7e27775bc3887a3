import { useSyncExternalStore } from "react";

export type Theme = "light" | "dark";

const KEPT = "fortis.theme";
const dim = matchMedia("(prefers-color-scheme: dark)");
const listeners = new Set<() => void>();
const current = (): Theme => (document.documentElement.dataset.theme === "dark" ? "dark" : "light");

function show(theme: Theme) {
  document.documentElement.dataset.theme = theme;
  for (const listener of listeners) listener();
}

dim.addEventListener("change", () => {
  if (!localStorage.getItem(KEPT)) show(dim.matches ? "dark" : "light");
});

/** The theme, and how to switch it. A choice is kept on this device; without one the device says. */
export function useTheme(): [Theme, () => void] {
  const theme = useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, current);
  const turn = () => {
    const next = current() === "dark" ? "light" : "dark";
    localStorage.setItem(KEPT, next);
    show(next);
  };
  return [theme, turn];
}
