import type { KeyboardEvent } from "react";
import type { FocusManager } from "react-aria/FocusScope";
import type { RegionPart, TrackPart } from "../api/types";
import { clampTall } from "../geometry/heights";
import { endOf, trackIdOf } from "../gestures/choosing";
import { chosenNow, setChoice } from "../state/choice";
import { choose } from "../state/choosing";
import { inHand } from "../state/layers";
import { lookup } from "../state/lookup";
import { song } from "../state/song";
import { setView, viewNow } from "../state/view";
import { setWishes } from "../state/wishes";
import { showTime } from "./scrolling";

/**
 * One Tab leads to a track; inside it arrows walk: over what stands beside it, then over its regions in order of
 * time.
 */
const STEPS: Record<string, 1 | -1> = { ArrowRight: 1, ArrowLeft: -1 };
const TALLER: Record<string, number> = { ArrowUp: 1 / 1.15, ArrowDown: 1.15 };

const bare = ({ ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean =>
  !(ctrlKey || metaKey || altKey || shiftKey);

function taken(event: KeyboardEvent): void {
  event.preventDefault();
  event.stopPropagation();
}

const regionsOf = (trackId: string): RegionPart[] => lookup(song().model).regions[`track/${trackId}`] ?? [];

/** Puts the keyboard on a region, wherever in the song it lies. */
function goTo(region: RegionPart): void {
  showTime(region.start_tick, endOf(region));
  setWishes({ region: region.id });
}

/** Arrows beside a row. With Shift, up and down make an unfolded one lower or taller. */
export function headerKey(event: KeyboardEvent, track: TrackPart, beside: FocusManager | undefined): void {
  const { unfolded, tall } = viewNow();
  const factor = event.shiftKey && unfolded.includes(track.id) ? TALLER[event.key] : undefined;
  if (factor) {
    taken(event);
    return setView({ tall: { ...tall, [track.id]: clampTall((tall[track.id] ?? 1) * factor) } });
  }
  const step = STEPS[event.key];
  if (!step || !bare(event)) return;
  taken(event);
  if (step < 0) return void beside?.focusPrevious();
  const first = regionsOf(track.id)[0];
  if (!beside?.focusNext() && first) goTo(first);
}

/** Arrows on a region that is not chosen: to its neighbours, and down to the points of its envelope in hand. */
export function regionArrow(event: KeyboardEvent, region: RegionPart): boolean {
  const step = STEPS[event.key];
  if (!bare(event) || chosenNow().regionIds.includes(region.id)) return false;
  if (event.key === "ArrowDown") return goToPoints(region);
  if (!step) return false;
  const trackId = trackIdOf(region);
  const all = regionsOf(trackId);
  const next = all[all.indexOf(region) + step];
  if (next) goTo(next);
  else if (step < 0) setWishes({ header: trackId });
  return true;
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
