import { create } from "zustand";
import type { ClipPart, EditInputs } from "../api/types";
import { setChoice } from "./choice";
import { type ChoiceMode, runsOf } from "./choosing";
import { edit } from "./edits";
import { song } from "./song";

type Note = ClipPart["notes"][number];

/** The chosen notes of a clip, by their places, and what was copied of them. */
interface NoteChoice {
  clipId: string | null;
  chosen: number[];
  copied: Note[];
}

export const useNotes = create<NoteChoice>(() => ({ clipId: null, chosen: [], copied: [] }));
export const notesNow = useNotes.getState;

export function chooseNotes(clipId: string | null, chosen: number[]): void {
  useNotes.setState({ clipId, chosen: [...new Set(chosen)].sort((a, b) => a - b) });
  setChoice({ envelopeId: null, chosen: [], span: null });
}

/** Chooses a note: it alone, all from the first chosen one through to it, or it as well (or no longer). */
export function chooseNote(clipId: string, index: number, mode: ChoiceMode): void {
  const { clipId: before, chosen } = notesNow();
  const known = before === clipId ? chosen : [];
  if (mode === "toggle")
    return chooseNotes(clipId, known.includes(index) ? known.filter((other) => other !== index) : [...known, index]);
  if (mode === "through" && known.length > 0) {
    const [from, to] = [Math.min(known[0], index), Math.max(known[known.length - 1], index)];
    return chooseNotes(
      clipId,
      Array.from({ length: to - from + 1 }, (_, i) => from + i),
    );
  }
  chooseNotes(clipId, [index]);
}

/** The clip whose notes are chosen, with their places. */
export function chosenNotes(): { clip: ClipPart; chosen: number[]; runs: [number, number][] } | null {
  const { clipId, chosen } = notesNow();
  const clip = clipId ? song().model.clips[clipId] : undefined;
  const known = chosen.filter((index) => clip && index < clip.notes.length);
  return clip && known.length > 0 ? { clip, chosen: known, runs: runsOf(known) } : null;
}

const keyOf = (note: Note): string => `${note.tick} ${note.pitch} ${note.length_ticks} ${note.velocity}`;

type NoteEdit =
  | "add_notes"
  | "remove_notes"
  | "move_notes"
  | "stretch_notes"
  | "set_velocity"
  | "quantise_notes"
  | "pace_notes"
  | "legato_notes"
  | "humanise_notes";

/** Makes an edit of notes; what it made, and what it left of the chosen ones, is chosen after it. */
export async function editNotes<K extends NoteEdit>(name: K, inputs: EditInputs[K]): Promise<void> {
  const clipId = inputs.clip_id;
  const before = song().model.clips[clipId]?.notes ?? [];
  const known = new Set(before.map(keyOf));
  const chosen = new Set(
    (notesNow().clipId === clipId ? notesNow().chosen : []).flatMap((i) => (before[i] ? [keyOf(before[i])] : [])),
  );
  const copies = name === "add_notes" || (name === "move_notes" && (inputs as EditInputs["move_notes"]).copy);
  if (!(await edit(name, inputs))) return;
  const after = song().model.clips[clipId]?.notes ?? [];
  const wanted = after.flatMap((note, i) => {
    const key = keyOf(note);
    return !known.has(key) || (!copies && chosen.has(key)) ? [i] : [];
  });
  chooseNotes(clipId, wanted);
}

/** Makes an edit of the chosen notes; nothing without any. */
export async function withNotes<K extends NoteEdit>(
  name: K,
  more: Omit<EditInputs[K], "clip_id" | "runs">,
): Promise<void> {
  const choice = chosenNotes();
  if (!choice) return;
  await editNotes(name, { clip_id: choice.clip.id, runs: choice.runs, ...more } as unknown as EditInputs[K]);
}

export function copyNotes(): void {
  const choice = chosenNotes();
  if (choice) useNotes.setState({ copied: choice.chosen.map((i) => choice.clip.notes[i]) });
}

/** Puts the copied notes into a clip, the first of them at a tick of it. */
export function pasteNotes(clipId: string, tick: number): void {
  const { copied } = notesNow();
  if (copied.length === 0) return;
  const first = Math.min(...copied.map((note) => note.tick));
  const notes = copied.map((note) => ({ ...note, tick: Math.max(0, note.tick - first + tick) }));
  void editNotes("add_notes", { clip_id: clipId, notes });
}
