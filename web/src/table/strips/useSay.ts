import type { EnvelopePart, ScaleEntry, Ticks } from "../../api/types";
import { positionText } from "../../geometry/viewport";
import { amountText } from "../../state/catalogue";
import { useSong } from "../../state/song";

/** How values and positions of an envelope read: `say(value)`, `say.position(tick)`. */
export function useSay(envelope: EnvelopePart, scale: ScaleEntry) {
  const catalogue = useSong((state) => state.catalogue);
  const meter = useSong((state) => state.model.head.meter);
  const say = (value: number): string => (catalogue ? amountText(catalogue, scale, envelope.role, value) : "");
  return Object.assign(say, { position: (tick: Ticks): string => positionText(meter, Math.max(0, tick)) });
}
export type Say = ReturnType<typeof useSay>;
