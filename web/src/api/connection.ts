import { create } from "zustand";

/** While the server is away it is asked for things no more often than this. */
const AGAIN_MS = 2000;

interface Connection {
  /** Whether the server is away. */
  away: boolean;
  /** When what is shown was kept, in milliseconds since 1970; null where it is the server's. */
  keptAt: number | null;
}

export const useConnection = create<Connection>(() => ({ away: false, keptAt: null }));

export const keptNow = (): number | null => useConnection.getState().keptAt;

/** From now on what was kept is shown, until the server answers again. */
export const showKept = (keptAt: number | null): void => {
  if (isAway()) useConnection.setState({ keptAt });
};

let failedAt = Number.NEGATIVE_INFINITY;

export const isAway = (): boolean => useConnection.getState().away;

/** Whether it was found away a moment ago, so that asking again tells nothing new. */
export const justAway = (): boolean => isAway() && performance.now() - failedAt < AGAIN_MS;

let probe = 0;

export function wentAway(): void {
  failedAt = performance.now();
  if (isAway()) return;
  useConnection.setState({ away: true });
  probe = window.setInterval(() => fetch("/api/songs", { method: "HEAD" }).then(answered, () => undefined), AGAIN_MS);
}

export function answered(): void {
  clearInterval(probe);
  if (isAway()) useConnection.setState({ away: false, keptAt: null });
}

/** Calls once when the server answers again. */
export function onceBack(call: () => void): void {
  const stop = useConnection.subscribe(({ away }) => {
    if (away) return;
    stop();
    call();
  });
}
