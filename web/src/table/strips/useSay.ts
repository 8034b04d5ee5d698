import type { Ticks } from "../../api/types";
import { positionText } from "../../geometry/viewport";
import { useSong } from "../../state/song";

export type SayPosition = (tick: Ticks) => string;

/** How positions read. */
export function useSayPosition(): SayPosition {
  const meter = useSong((state) => state.model.head.meter);
  return (tick) => positionText(meter, Math.max(0, tick));
}
