import type { Ticks } from "../api/types";
import { barStart, barTicks, meterAt } from "../geometry/viewport";
import { editAndTell } from "../state/edits";
import { song } from "../state/song";
import { placeAt } from "../state/stage";
import { setView, viewNow } from "../state/view";
import { nameClip } from "../state/wishes";
import { select } from "./choosing";
import { isDouble } from "./hand";

/** Makes an empty clip of a bar on a track of notes, where a tick lies, and opens it to be drawn in. */
export async function makeClip(trackId: string, tick: Ticks): Promise<void> {
  const { meters } = song().model.head;
  const start = barStart(meters, Math.max(0, tick));
  const bar = barTicks(meterAt(meters, start));
  const change = await editAndTell("make_clip", { track_id: trackId, start_tick: start, length_ticks: bar });
  const made = change?.parts.find(([kind, , record]) => kind === "region" && record !== null)?.[1];
  const region = made ? song().model.regions[made] : undefined;
  if (!region) return;
  select(region);
  const { unfolded, notes } = viewNow();
  setView({
    unfolded: unfolded.includes(trackId) ? unfolded : [...unfolded, trackId],
    notes: { ...notes, [trackId]: true },
  });
  // A phone's keyboard would hide what was made.
  if (!matchMedia("(pointer: coarse)").matches) nameClip(region.id);
}

export const playsNotes = (trackId: string | null): boolean =>
  song().model.tracks.some(({ id, kind }) => id === trackId && kind === "notes");

/** A press on empty ground without a drag: the second of two makes a clip on a track of notes. */
export function pressEmpty(x: number, y: number): void {
  const place = placeAt(x, y);
  if (place && playsNotes(place.trackId) && isDouble(`empty ${place.trackId}`))
    void makeClip(place.trackId, place.tick);
}
