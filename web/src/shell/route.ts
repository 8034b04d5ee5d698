import { useSyncExternalStore } from "react";

const listen = (told: () => void) => {
  addEventListener("popstate", told);
  return () => removeEventListener("popstate", told);
};

export function go(path: string): void {
  history.pushState(null, "", path);
  dispatchEvent(new PopStateEvent("popstate"));
}

/** The id of the song whose surface this is; null elsewhere. */
export function useSurfaceOf(): number | null {
  const path = useSyncExternalStore(listen, () => location.pathname);
  const match = /^\/songs\/(\d+)\/surface$/.exec(path);
  return match ? Number(match[1]) : null;
}

/** The id of the song in the address, null on the shelf. */
export function useSongId(): number | null {
  const path = useSyncExternalStore(listen, () => location.pathname);
  const match = /^\/songs\/(\d+)$/.exec(path);
  return match ? Number(match[1]) : null;
}
