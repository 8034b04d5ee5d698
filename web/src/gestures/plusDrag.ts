import type { PointerEvent } from "react";
import type { ClipPart, Px, RegionPart } from "../api/types";
import { hasLanes, stripsOf } from "../geometry/heights";
import { movesHere, type Placed, trackOf } from "../state/catalogue";
import { setHand } from "../state/hand";
import { holdsRegions } from "../state/holds";
import { lookup } from "../state/lookup";
import { tell } from "../state/notice";
import { song } from "../state/song";
import { placeAt, rowBox } from "../state/stage";
import { viewNow } from "../state/view";
import { endOf, select } from "./choosing";
import { embed, freeRoles } from "./embedding";

/** So far a press may wander and still be one. */
const SLACK: Px = 8;

type Goal = { region: RegionPart; clip: ClipPart } | "lane" | { fault: string };

/** What an envelope for a parameter comes to at a place of the screen: a clip there, or a lane of its own track. */
function goalAt({ address, entry }: Placed, x: Px, y: Px): Goal {
  const { model } = song();
  const place = placeAt(x, y);
  const track = model.tracks.find(({ id }) => id === place?.trackId);
  const box = track && rowBox(track.id);
  if (!place || !track || !box || place.tick < 0) return { fault: `${entry.name}: drop it on a region or a lane` };
  const unfolded = viewNow().unfolded.includes(track.id);
  const clips = holdsRegions(track) ? (unfolded ? stripsOf(viewNow().tall[track.id], track).material : box.height) : 0;
  const region = (lookup(model).regions[`track/${track.id}`] ?? []).find(
    (one) => place.tick >= one.start_tick && place.tick < endOf(one),
  );
  if (region && y - box.top < clips) {
    const clip = model.clips[region.clip_id];
    const reaches = clip.kind === "carrier" || movesHere(model, address, track.id, clip.id);
    return reaches ? { region, clip } : { fault: `${clip.name} does not move this ${entry.name}` };
  }
  const home = trackOf(model, address) === track.id;
  return home && hasLanes(track) ? "lane" : { fault: `${entry.name}: drop it on a region or a lane of its own track` };
}

const ownerOf = (goal: Exclude<Goal, { fault: string }>, address: string): string =>
  goal === "lane" ? `track/${trackOf(song().model, address)}` : `clip/${goal.clip.id}`;

/** The + of a knob, dragged onto the song: an envelope just there. A press that does not wander stays a press. */
export function pressPlus({ pointerId, clientX, clientY, button }: PointerEvent, placed: Placed): void {
  if (button !== 0) return;
  const { address, entry, scale } = placed;
  let goal: Goal | null = null;
  const roleFor = (found: Exclude<Goal, { fault: string }>) =>
    freeRoles(address, ownerOf(found, address)).find((role) => !scale.set_only || role === "set");
  const seen = (x: Px, y: Px): Goal => {
    const found = goalAt(placed, x, y);
    if (found !== "lane" && "fault" in found) return found;
    return roleFor(found) ? found : { fault: "It has one there already" };
  };
  const onMove = (event: globalThis.PointerEvent) => {
    if (event.pointerId !== pointerId) return;
    if (!goal && Math.hypot(event.clientX - clientX, event.clientY - clientY) < SLACK) return;
    goal = seen(event.clientX, event.clientY);
    const fault = goal !== "lane" && "fault" in goal ? goal.fault : null;
    const words =
      goal === "lane" ? `a lane for ${entry.name}` : "clip" in goal ? `${entry.name} in ${goal.clip.name}` : "";
    setHand({ carry: { x: event.clientX, y: event.clientY, fault, words } });
  };
  const end = () => {
    window.removeEventListener("pointermove", onMove);
    window.removeEventListener("pointerup", onUp);
    window.removeEventListener("pointercancel", end);
    window.removeEventListener("keydown", onKey, true);
    if (goal) setHand({ carry: null });
  };
  const onUp = (event: globalThis.PointerEvent) => {
    if (event.pointerId !== pointerId) return;
    end();
    if (!goal) return;
    if (goal !== "lane" && "fault" in goal) return tell("fault", `${goal.fault}.`);
    const role = roleFor(goal);
    if (goal !== "lane") select(goal.region);
    void embed(address, goal === "lane" ? null : goal.clip, role);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== "Escape" || !goal) return;
    event.stopPropagation();
    end();
  };
  window.addEventListener("pointermove", onMove);
  window.addEventListener("pointerup", onUp);
  window.addEventListener("pointercancel", end);
  window.addEventListener("keydown", onKey, true);
}
