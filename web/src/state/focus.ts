import type { EnvelopePart, TrackPart } from "../api/types";
import { hasLanes } from "../geometry/heights";
import { moveOf, movesHere, ownerById, trackOf } from "./catalogue";
import { askedForValue } from "./latest";
import type { Lookup } from "./lookup";
import { lookup } from "./lookup";
import type { Model } from "./model";
import { song } from "./song";
import { openDevice, openOf, setView, viewNow } from "./view";
import { isDriving } from "./whoDrives";

const MOST_LATELY = 24;

/** Brings a parameter into focus on its track, and remembers it as touched. */
export function focusOn(address: string): void {
  const { focus, lately } = viewNow();
  const trackId = trackOf(song().model, address);
  const [chain, deviceId] = address.split("/");
  const opened = openOf(chain, ownerById(song().model, chain)?.devices ?? []);
  if (!opened.includes(deviceId)) openDevice(chain, deviceId, true, opened);
  askedForValue();
  if (focus[trackId] === address && lately[0] === address) return;
  setView({
    focus: { ...focus, [trackId]: address },
    lately: [address, ...lately.filter((other) => other !== address)].slice(0, MOST_LATELY),
  });
}

/**
 * What a hand on a knob brings into focus: a setting of a move leaves in focus what it is a setting of, and while knobs
 * are touched to be driven the macro stays.
 */
export function focusOnKnob(address: string): void {
  if (!isDriving() && !moveOf(song().model, address)) focusOn(address);
}

/** What a track shows first: the parameter of its first clip envelope or lane. */
export function firstAutomated(track: TrackPart, find: Lookup, model: Model): string | null {
  for (const region of find.regions[`track/${track.id}`] ?? []) {
    const first = (find.envelopes[`clip/${region.clip_id}`] ?? []).find(
      (envelope: EnvelopePart) => !hasLanes(track) || movesHere(model, envelope.target, track.id, region.clip_id),
    );
    if (first) return first.target;
  }
  return (
    (find.envelopes[`track/${track.id}`] ?? [])[0]?.target ??
    Object.keys(find.targets).find((target) => target.startsWith(`${track.id}/`)) ??
    (hasLanes(track) ? `${track.id}/channel/volume` : null)
  );
}

/** The parameter that a track shows. */
export function focusOf(trackId: string): string | null {
  const { model } = song();
  const track = model.tracks.find(({ id }) => id === trackId);
  return viewNow().focus[trackId] ?? (track ? firstAutomated(track, lookup(model), model) : null);
}
