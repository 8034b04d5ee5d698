import type { RegionPart } from "../api/types";
import { setChoice } from "../state/choice";
import { choose } from "../state/choosing";
import { inHand } from "../state/layers";
import { lookup } from "../state/lookup";
import { showTime } from "../state/scrolling";
import { song } from "../state/song";
import { viewNow } from "../state/view";
import { setWishes } from "../state/wishes";
import { endOf, trackIdOf } from "./choosing";

/** Puts the keyboard on a region, wherever in the song it lies. */
export function goTo(region: RegionPart): void {
  showTime(region.start_tick, endOf(region));
  setWishes({ region: region.id });
}

/** Puts the keyboard on the first point of the envelope in hand, where the region starts. */
export function goToPoints(region: RegionPart): boolean {
  const { focus, layer } = viewNow();
  const trackId = trackIdOf(region);
  const moves = lookup(song().model).envelopes[`clip/${region.clip_id}`] ?? [];
  const envelope = inHand(
    moves.filter(({ target }) => target === focus[trackId]),
    layer[`${trackId} clip`],
  );
  if (!envelope || envelope.points.length === 0) return false;
  setChoice({ regionId: null, regionIds: [] });
  choose(envelope.id, 0, "only", region.start_tick);
  setWishes({ point: { envelopeId: envelope.id, index: 0, windowFrom: region.start_tick } });
  return true;
}
