import { useSyncExternalStore } from "react";

const KEY = "satchel-theme";
const dark = matchMedia("(prefers-color-scheme: dark)");
const told = new Set<() => void>();

const kept = () => localStorage.getItem(KEY);
const current = () => kept() ?? (dark.matches ? "lamplight" : "daylight");

function show(): void {
  const theme = kept();
  if (theme) document.documentElement.dataset.theme = theme;
  for (const tell of told) tell();
}

export function toggleTheme(): void {
  localStorage.setItem(KEY, current() === "daylight" ? "lamplight" : "daylight");
  show();
}

export const useTheme = (): string =>
  useSyncExternalStore((tell) => {
    told.add(tell);
    dark.addEventListener("change", tell);
    return () => {
      told.delete(tell);
      dark.removeEventListener("change", tell);
    };
  }, current);

show();
