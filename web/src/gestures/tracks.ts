import type { KeyboardEvent, PointerEvent } from "react";
import type { TrackPart } from "../api/types";
import { edit } from "../state/edits";
import { setHand } from "../state/hand";
import { previewer } from "../state/previewer";
import { song } from "../state/song";
import { rowBox } from "../state/stage";
import { nameTrack } from "../state/wishes";
import { drag, type Press } from "./drag";
import { whenHeld } from "./hold";

/** The track above which a header dropped at a height of the screen comes: the first whose middle lies below. */
function beforeAt(y: number): string | null {
  const { tracks } = song().model;
  const below = tracks.find(({ id }) => {
    const box = rowBox(id);
    return box !== undefined && y < box.top + Math.min(box.height, 40) / 2;
  });
  return (below ?? tracks[tracks.length - 1])?.id ?? null;
}

/**
 * Drags a track by its name to another place; what it comes to sound into is told beside the hand. A finger holds
 * first, for one that moves at once scrolls.
 */
export function pressTrack(event: PointerEvent, track: TrackPart): void {
  if (track.kind !== "master") whenHeld(event, (press) => carryTrack(press, track));
}

function carryTrack(event: Press, track: TrackPart): void {
  const [x0, y0] = [event.clientX, event.clientY];
  const trial = previewer();
  const goal = (dy: number) => beforeAt(y0 + dy);
  const end = (keep: boolean) => {
    setHand({ carry: null });
    trial.end(keep);
  };
  drag(event, {
    move: ({ dx, dy, moved }) => {
      const before = goal(dy);
      if (!moved || !before || before === track.id) return;
      setHand({ carry: { x: x0 + dx, y: y0 + dy, fault: null } });
      trial.ask("move_track", { track_id: track.id, before });
    },
    drop: ({ dy, moved }) => {
      const before = goal(dy);
      const goes = moved && before !== null && before !== track.id;
      end(goes);
      if (goes) void edit("move_track", { track_id: track.id, before });
    },
    cancel: () => end(false),
  });
}

/** The track above which one comes that goes a step up or down. */
export function stepTo(track: TrackPart, step: 1 | -1): string | null {
  const { tracks } = song().model;
  const place = tracks.indexOf(track);
  return tracks[step < 0 ? place - 1 : place + 2]?.id ?? null;
}

/** F2 names a track; with Alt, up and down move it. */
export function trackKey(event: KeyboardEvent, track: TrackPart): boolean {
  if (event.key === "F2") {
    nameTrack(track.id);
    event.stopPropagation();
    return true;
  }
  const step = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : null;
  if (!event.altKey || step === null || track.kind === "master") return false;
  void edit("move_track", () => ({ track_id: track.id, before: stepTo(track, step) ?? track.id }));
  return true;
}
