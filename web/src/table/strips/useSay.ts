import type { Ticks } from "../../api/types";
import { positionText } from "../../geometry/viewport";
import { useSong } from "../../state/song";

export type SayPosition = (tick: Ticks) => string;

/** How positions read. */
export function useSayPosition(): SayPosition {
  const meters = useSong((state) => state.model.head.meters);
  return (tick) => positionText(meters, Math.max(0, tick));
}
