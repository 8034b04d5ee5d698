import { player } from "../sound/player";
import { edit, editAndTell } from "../state/edits";
import { songEnd } from "../state/model";
import { song } from "../state/song";
import { setWishes } from "../state/wishes";
import type { Command } from "./command";

const always = (): null => null;

/** What can be done to a marker. */
export function markerCommands(markerId: string): Command[] {
  const { model } = song();
  const markers = model.head.markers ?? [];
  const marker = markers.find(({ id }) => id === markerId);
  if (!marker) return [];
  const end_tick = markers.find(({ tick }) => tick > marker.tick)?.tick ?? songEnd(model);
  return [
    {
      id: "go",
      words: "Go there",
      what: "The playhead goes to it",
      held: "Enter",
      why: always,
      run: () => player.seek(marker.tick),
    },
    {
      id: "name",
      words: "Name",
      what: "Another name",
      held: "F2",
      why: always,
      run: () => setWishes({ marker: markerId }),
    },
    {
      id: "repeat",
      words: "Repeat from here",
      what: "To the next marker, or to the end of the song",
      why: () => (end_tick > marker.tick ? null : "Nothing comes after it."),
      run: () => editAndTell("set_range", { start_tick: marker.tick, end_tick, on: true }),
    },
    {
      id: "remove",
      words: "Remove",
      what: "The marker; nothing else changes",
      held: "Delete",
      removes: true,
      why: always,
      run: () => edit("remove_marker", { marker_id: markerId }),
    },
  ];
}
