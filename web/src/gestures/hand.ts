import type { Ticks } from "../api/types";
import type { Ground } from "../geometry/hit";
import { gridNow } from "../state/grid";
import { type Hand, setHand } from "../state/hand";
import type { previewer } from "../state/previewer";
import { byFinger, type Reach } from "./drag";

/** Two presses on one mark within this time are a double press, by mouse or finger. */
const DOUBLE_MS = 450;
let lastPress = { mark: "", at: 0 };

/** Whether a press on a mark is the second of two. */
export function isDouble(mark: string, now = performance.now()): boolean {
  const double = lastPress.mark === mark && now - lastPress.at < DOUBLE_MS;
  lastPress = { mark: double ? "" : mark, at: now };
  return double;
}

/** The grid, unless the hand ignores it. */
export const step = (reach: Reach): Ticks => (reach.free ? 0 : gridNow());

/** The hand lets go: the trial ends, in an edit or in nothing. */
export function finish(trial: ReturnType<typeof previewer>, commit: (() => Promise<unknown>) | null): void {
  setHand({ hand: null });
  trial.end(commit !== null);
  void commit?.();
}

export const showHand = (ground: Ground, kind: Hand["kind"], index: number | null, words?: string) =>
  setHand({
    hand: { kind, envelopeId: ground.envelope.id, index, words, finger: byFinger(), windowFrom: ground.window[0] },
  });
