import type { ClipPart, Meter, Ticks } from "../../api/types";
import { meterAt, ownMeter, positionText } from "../../geometry/viewport";
import { lookup } from "../../state/lookup";
import { song, useSong } from "../../state/song";

export type SayPosition = (tick: Ticks) => string;

/** How positions read: of the song, or of a clip's own time. */
export function useSayPosition(clip?: ClipPart): SayPosition {
  const meters = useSong((state) => state.model.head.meters);
  const counted = clip ? [clipMeter(clip, meters)] : meters;
  return (tick) => positionText(counted, Math.max(0, tick));
}

/** By what a clip's bars are counted: its own time signature, else that of the song where it first lies. */
export function clipMeter(clip: ClipPart, meters: Meter[]): Meter {
  const starts = (lookup(song().model).placed[clip.id] ?? []).map(({ start_tick }) => start_tick);
  return ownMeter(clip.meter ?? meterAt(meters, starts.length > 0 ? Math.min(...starts) : 0));
}
