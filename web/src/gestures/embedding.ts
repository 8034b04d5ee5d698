import type { ClipPart } from "../api/types";
import { movesHere, ownClip, trackOf } from "../state/catalogue";
import { chosenNow, setChoice } from "../state/choice";
import { edit } from "../state/edits";
import { focusOn } from "../state/focus";
import { unfold } from "../state/folding";
import { askedForValue } from "../state/latest";
import { ROLES, type Role, takeLayer } from "../state/layers";
import { lookup } from "../state/lookup";
import type { Model } from "../state/model";
import { showTime } from "../state/scrolling";
import { song } from "../state/song";
import { setView, viewNow } from "../state/view";
import type { Deed } from "../ui/Menu";

/** What each role does to the value, to be put after "one that". */
export const DOES: Record<Role, string> = {
  set: "sets the value",
  scale: "scales it: multiplies what is set",
  shift: "shifts it: adds to what is set",
};

/** Embeds an envelope in a clip, or adds a lane where there is none, and puts the new curve under the hand. */
export async function embed(address: string, clip: ClipPart | null, role: Role = "set"): Promise<void> {
  const trackId = trackOf(song().model, address);
  focusOn(address);
  const change = await (clip
    ? edit("embed_envelope", { clip_id: clip.id, address, role })
    : edit("add_lane", { address, role }));
  const made = change?.parts.find(([kind]) => kind === "envelope");
  if (!made) return;
  const region = clip ? song().model.regions[chosenNow().regionId ?? ""] : undefined;
  const home = region ? region.owner.slice("track/".length) : trackId;
  setView({ focus: { ...viewNow().focus, [home]: address } });
  takeLayer(home, clip ? "clip" : "lane", role);
  unfold(home);
  if (region) showTime(region.start_tick, region.start_tick + region.length_ticks);
  setChoice({ envelopeId: made[1], chosen: [0], span: null, windowFrom: region?.start_tick ?? 0 });
  askedForValue();
}

/** The clip that an envelope for a parameter goes into by itself: the chosen one, or that of its own effect. */
export function clipFor(model: Model, regionId: string | null, address: string): ClipPart | null {
  const region = regionId ? model.regions[regionId] : undefined;
  const chosen = region && model.clips[region.clip_id];
  if (!chosen) return ownClip(model, address);
  const home = region.owner.slice("track/".length);
  return chosen.kind === "carrier" || movesHere(model, address, home, chosen.id) ? chosen : ownClip(model, address);
}

/** What can move a setting of a move: an envelope beside it in its clip, which goes along with it, or a lane. */
export function settingDeeds(address: string, clip: ClipPart, setOnly: boolean): Deed[] {
  const trackId = trackOf(song().model, address);
  const places: [ClipPart | null, string, string][] = [
    [clip, `In ${clip.name}`, "goes along with the clip"],
    [null, "On a lane", "over the whole song, in every region of the clip"],
  ];
  return places.flatMap(([place, words, what]) => {
    const owner = place ? `clip/${place.id}` : `track/${trackId}`;
    const role = freeRoles(address, owner).find((one) => !setOnly || one === "set");
    if (!role) return [];
    return [{ id: owner, words, what: `${what}; ${DOES[role]}`, act: () => embed(address, place, role) }];
  });
}

/** Roles that nothing yet plays for a parameter in a clip or on a track. */
export function freeRoles(address: string, owner: string): Role[] {
  const taken = (lookup(song().model).targets[address] ?? []).filter((envelope) => envelope.owner === owner);
  return ROLES.filter((role) => taken.every((envelope) => envelope.role !== role));
}

/** A second envelope for what already has one: first its role is asked for. */
export const layerDeeds = (address: string, clip: ClipPart | null, roles: Role[]): Deed[] =>
  roles.map((role) => ({
    id: role,
    words: `One that ${role}s`,
    what: DOES[role],
    act: () => embed(address, clip, role),
  }));
