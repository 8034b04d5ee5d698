import type { Ticks } from "../api/types";
import { song } from "./song";
import { transportNow, useTransport } from "./transport";
import { FRESH_VIEW, type KeptView, useView, viewNow } from "./view";

const KEYS = Object.keys(FRESH_VIEW) as (keyof KeptView)[];
const REST_MS = 300;

const keyOf = (id: number) => `satchel-view-${id}`;

/** The view this tab last had of a song, and where its playhead stood; null on a first visit. */
export function keptView(id: number): { view: KeptView; playhead: Ticks } | null {
  try {
    const { playhead = 0, ...view } = JSON.parse(localStorage.getItem(keyOf(id)) ?? "null");
    return { view: { ...FRESH_VIEW, ...view }, playhead };
  } catch {
    return null;
  }
}

let saving = 0;

/** Keeps the view once it rests; while it plays the playhead does not. */
function save(): void {
  clearTimeout(saving);
  const { songId } = song();
  if (songId === null || transportNow().playing) return;
  saving = setTimeout(() => {
    const view = Object.fromEntries(KEYS.map((key) => [key, viewNow()[key]]));
    localStorage.setItem(keyOf(songId), JSON.stringify({ ...view, playhead: transportNow().playhead }));
  }, REST_MS);
}

useView.subscribe(save);
useTransport.subscribe((now, before) => {
  if (!now.playing && (now.playhead !== before.playhead || before.playing)) save();
});
