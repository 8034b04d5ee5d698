import type { KeyboardEvent } from "react";
import type { FocusManager } from "react-aria/FocusScope";
import type { RegionPart, TrackPart } from "../api/types";
import { clampTall } from "../geometry/heights";
import { trackIdOf } from "../gestures/choosing";
import { goTo, goToNotes, goToPoints } from "../gestures/goTo";
import { chosenNow } from "../state/choice";
import { lookup } from "../state/lookup";
import { song } from "../state/song";
import { setView, viewNow } from "../state/view";
import { setWishes } from "../state/wishes";

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
  const { notes, unfolded } = viewNow();
  const home = trackIdOf(region);
  if (event.key === "ArrowDown") return notes[home] && unfolded.includes(home) ? goToNotes(region) : goToPoints(region);
  if (!step) return false;
  const all = regionsOf(home);
  const next = all[all.indexOf(region) + step];
  if (next) goTo(next);
  else if (step < 0) setWishes({ header: home });
  return true;
}
