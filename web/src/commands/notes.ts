import { ArrowDown, ArrowUp, ClipboardPaste, Copy, Grid2x2, PanelRight, Scissors, Trash2 } from "lucide-react";
import { removeNotes } from "../gestures/goTo";
import { gridNow } from "../state/grid";
import { lookup } from "../state/lookup";
import { chooseNotes, chosenNotes, copyNotes, notesNow, pasteNotes, withNotes } from "../state/noteChoice";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { setView } from "../state/view";
import type { Command } from "./command";

const any = (): string | null =>
  chosenNotes() ? null : "Choose notes first: press one, or draw a loop around several.";
const clip = () => song().model.clips[notesNow().clipId ?? ""];
const inClip = (): string | null => (clip() ? null : "Choose a note of the clip first.");
/** How much louder or softer, of 127. */
const LOUDER = 8;

/** Where the playhead stands in a clip; its start, where it does not. */
function playheadIn(clipId: string): number {
  const { playhead } = transportNow();
  const region = (lookup(song().model).placed[clipId] ?? []).find(
    ({ start_tick, length_ticks }) => playhead >= start_tick && playhead < start_tick + length_ticks,
  );
  if (!region) return 0;
  return (playhead - region.start_tick + region.offset_ticks) % song().model.clips[clipId].length_ticks;
}

/** What can be done to the chosen notes. */
export const NOTE_COMMANDS: Command[] = [
  {
    id: "copy",
    words: "Copy",
    what: "To be pasted into any clip of notes",
    Icon: Copy,
    held: "Ctrl C",
    common: true,
    why: any,
    run: copyNotes,
  },
  {
    id: "cut",
    words: "Cut",
    what: "Copied, and taken out",
    Icon: Scissors,
    held: "Ctrl X",
    why: any,
    run: () => {
      copyNotes();
      return removeNotes();
    },
  },
  {
    id: "paste",
    words: "Paste",
    what: "What was copied, at the playhead; at the start of a clip that it does not stand in",
    Icon: ClipboardPaste,
    held: "Ctrl V",
    placed: true,
    why: () => inClip() ?? (notesNow().copied.length > 0 ? null : "No notes have been copied yet."),
    run: () => pasteNotes(clip().id, playheadIn(clip().id)),
  },
  {
    id: "all",
    words: "Choose all",
    what: "Every note of the clip",
    held: "Ctrl A",
    why: inClip,
    run: () =>
      chooseNotes(
        clip().id,
        clip().notes.map((_, i) => i),
      ),
  },
  {
    id: "louder",
    words: "Louder",
    what: "By 8 of 127",
    held: "Ctrl ↑",
    Icon: ArrowUp,
    common: true,
    why: any,
    run: () => withNotes("set_velocity", { add: LOUDER }),
  },
  {
    id: "softer",
    words: "Softer",
    what: "By 8 of 127",
    held: "Ctrl ↓",
    Icon: ArrowDown,
    common: true,
    why: any,
    run: () => withNotes("set_velocity", { add: -LOUDER }),
  },
  {
    id: "octave-up",
    words: "Octave up",
    what: "Twelve semitones",
    held: "Shift ↑",
    why: any,
    run: () => withNotes("move_notes", { steps: 12 }),
  },
  {
    id: "octave-down",
    words: "Octave down",
    what: "Twelve semitones",
    held: "Shift ↓",
    why: any,
    run: () => withNotes("move_notes", { steps: -12 }),
  },
  {
    id: "quantise",
    words: "Quantise",
    what: "Starts to the grid; strength and swing stand in the panel",
    Icon: Grid2x2,
    common: true,
    why: () => any() ?? (gridNow() > 0 ? null : "The grid is off."),
    run: () => withNotes("quantise_notes", { grid_ticks: gridNow(), strength: 1, swing: 0, what: "starts" }),
  },
  {
    id: "longer",
    words: "Longer",
    what: "By a step of the grid",
    held: "Shift →",
    why: any,
    run: () => withNotes("stretch_notes", { ticks: gridNow() || 10 }),
  },
  {
    id: "shorter",
    words: "Shorter",
    what: "By a step of the grid",
    held: "Shift ←",
    why: any,
    run: () => withNotes("stretch_notes", { ticks: -(gridNow() || 10) }),
  },
  {
    id: "twice",
    words: "Twice as fast",
    what: "In half the time, from the first on",
    why: any,
    run: () => withNotes("pace_notes", { pace: 2 }),
  },
  {
    id: "half",
    words: "Half as fast",
    what: "Over twice the time, from the first on",
    why: any,
    run: () => withNotes("pace_notes", { pace: 0.5 }),
  },
  {
    id: "legato",
    words: "Legato",
    what: "Each as long as until the next begins",
    why: any,
    run: () => withNotes("legato_notes", {}),
  },
  {
    id: "edit",
    words: "Edit …",
    what: "Everything else that can be done with them, in the panel",
    Icon: PanelRight,
    why: any,
    run: () => setView({ sheet: "at-hand", panelOpen: true }),
  },
  {
    id: "remove",
    words: "Remove",
    what: "The chosen notes",
    Icon: Trash2,
    held: "Delete",
    removes: true,
    why: any,
    run: removeNotes,
  },
];
