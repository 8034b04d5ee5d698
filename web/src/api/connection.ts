import { create } from "zustand";

/** While the server is away it is asked for things no more often than this. */
const AGAIN_MS = 2000;

/** Whether the server answers. */
export const useConnection = create<{ away: boolean }>(() => ({ away: false }));

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
  if (isAway()) useConnection.setState({ away: false });
}

/** Calls once when the server answers again. */
export function onceBack(call: () => void): void {
  const stop = useConnection.subscribe(({ away }) => {
    if (away) return;
    stop();
    call();
  });
}
