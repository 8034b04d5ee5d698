import { Plus } from "lucide-react";
import { useEffect } from "react";
import type { EditInputs } from "../api/types";
import { chooseMidi } from "../gestures/chooseFile";
import { showControls } from "../state/controls";
import { editAndTell } from "../state/edits";
import { readPresets, usePresets } from "../state/presets";
import { reveal } from "../state/scrolling";
import { useSong } from "../state/song";
import { showPlacing } from "../state/soundList";
import { setView } from "../state/view";
import { nameTrack } from "../state/wishes";
import { type Deed, DeedMenu } from "../ui/Menu";

/** Adds a track, goes to it, and lets it be named. */
async function add(inputs: EditInputs["add_track"]): Promise<void> {
  const change = await editAndTell("add_track", inputs);
  const made = change?.parts.find(([kind, , record]) => kind === "track" && record);
  if (!made) return;
  setView({ trackId: made[1] });
  reveal(made[1]);
  // A phone's keyboard would hide what was made.
  if (!matchMedia("(pointer: coarse)").matches) nameTrack(made[1]);
}

/** Under the last track: a track of any kind, a track of notes by its instrument. */
export function AddTrack({ headerWidth }: { headerWidth: number }) {
  const catalogue = useSong((state) => state.catalogue);
  const types = Object.entries(catalogue?.devices ?? {}).filter(
    ([, { role, plays }]) => role === "instrument" && plays === "notes",
  );
  const list = usePresets((state) => state.list);
  const chains = list?.filter(
    ({ device, devices }) => device === null && catalogue?.devices[devices[0].type]?.plays === "notes",
  );
  useEffect(() => void (list ?? readPresets(() => {})), [list]);
  const deeds: Deed[] = [
    ...types.map(([id, { name }]) => ({
      id,
      words: name,
      what: "a track of notes",
      act: () => add({ kind: "notes", name, devices: [{ type: id }] }),
    })),
    ...(chains ?? []).map((preset) => ({
      id: `preset-${preset.id}`,
      words: preset.name,
      what: "a track of notes, from a preset",
      act: () => add({ kind: "notes", name: preset.name, devices: preset.devices }),
    })),
    { id: "sound", words: "A sound …", what: "from a file, or one already stored", act: showPlacing },
    { id: "midi", words: "A MIDI file …", what: "its tracks, from the playhead's bar on", act: chooseMidi },
    {
      id: "controls",
      words: "What MIDI controllers move …",
      what: "when a MIDI file is read",
      act: () => showControls(),
    },
    { id: "audio", words: "Audio", what: "a track of loops", act: () => add({ kind: "audio" }) },
    { id: "carrier", words: "Carriers", what: "a track of moves alone", act: () => add({ kind: "carrier" }) },
    { id: "group", words: "Group", what: "other tracks sound into it", act: () => add({ kind: "group" }) },
    { id: "return", words: "Return", what: "every channel can send to it", act: () => add({ kind: "return" }) },
  ];
  return (
    <div className="p-1" style={{ width: headerWidth }}>
      <DeedMenu
        label="Add a track"
        look="btn btn-ghost btn-sm w-full justify-start font-normal pointer-coarse:h-11"
        deeds={deeds}
      >
        <Plus size={16} aria-hidden="true" /> Add a track
      </DeedMenu>
    </div>
  );
}
