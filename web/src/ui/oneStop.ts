import type { KeyboardEvent } from "react";

const STOPS = "button:not([disabled]), [role=slider], select, input, a[href]";

const stopsIn = (group: HTMLElement): HTMLElement[] =>
  [...group.querySelectorAll<HTMLElement>(STOPS)].filter((stop) => stop.tabIndex >= 0 && stop.offsetParent !== null);

/**
 * Many things that Tab passes in one step: Tab leaves the group at once, arrows to the left and right walk through it.
 * To be given to the group as its `onKeyDown`.
 */
export function oneStop(event: KeyboardEvent<HTMLElement>): void {
  const stops = stopsIn(event.currentTarget);
  const at = stops.indexOf(event.target as HTMLElement);
  if (at < 0) return;
  // From its last stop the browser goes on to what comes after the group, from its first to what comes before.
  if (event.key === "Tab") return (event.shiftKey ? stops[0] : stops[stops.length - 1]).focus();
  const way = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
  if (!way || event.altKey || event.ctrlKey || event.metaKey || event.target instanceof HTMLInputElement) return;
  event.preventDefault();
  event.stopPropagation();
  stops[at + way]?.focus();
}
