import type { PointerEvent } from "react";
import type { ClipPart, Pass, Px, Ticks } from "../api/types";
import { type NoteRows, pitchAt, rowY, velocityAt } from "../geometry/noteRows";
import { snapTick } from "../geometry/viewport";
import { modeOf } from "../state/choosing";
import { gridNow } from "../state/grid";
import { setHand } from "../state/hand";
import { chooseNote, chooseNotes, chosenNotes, editNotes, notesNow, withNotes } from "../state/noteChoice";
import { nudging } from "../state/nudging";
import { previewer } from "../state/previewer";
import { viewNow } from "../state/view";
import { drag, type Reach } from "./drag";
import { backToNote } from "./goTo";

/** A repeat of a clip's notes in the song, and the rows they stand in. */
export interface NoteGround {
  clip: ClipPart;
  pass: Pass;
  rows: NoteRows;
  pxPerTick: number;
}

/** Where in a clip a pixel across the song lies. */
const inClip = ({ pass: [from, , into], pxPerTick }: NoteGround, x: Px): Ticks => x / pxPerTick - from + into;

/** A distance on the grid, unless the hand goes free of it. */
const stepped = ({ pxPerTick }: NoteGround, { dx, free }: Reach): Ticks =>
  free ? Math.round(dx / pxPerTick) : snapTick(dx / pxPerTick, gridNow());

export type NotePart = "body" | "start" | "end" | "velocity";

/** A press on a note: it is chosen, and dragged with all chosen ones: moved, stretched at an end, made louder. */
export function pressNote(event: PointerEvent, ground: NoteGround, index: number, part: NotePart, y: Px): void {
  const { clip, rows } = ground;
  if (viewNow().tool === "rub") return void editNotes("remove_notes", { clip_id: clip.id, runs: [[index, index]] });
  const known = notesNow().clipId === clip.id && notesNow().chosen.includes(index);
  const mode = modeOf(event);
  if (!known && mode === "only") chooseNotes(clip.id, [index]);
  const note = clip.notes[index];
  const trial = previewer();
  const wish = (reach: Reach) => {
    const choice = chosenNotes();
    if (!choice) return null;
    const base = { clip_id: clip.id, runs: choice.runs };
    if (part === "velocity") {
      const to = velocityAt(rows, y + reach.dy);
      return ["set_velocity", { ...base, add: to - note.velocity }] as const;
    }
    const ticks = stepped(ground, reach);
    if (part !== "body") return ["stretch_notes", { ...base, ticks, edge: part }] as const;
    const steps = pitchAt(rows, rowY(rows, note.pitch) + rows.height / 2 + reach.dy) - note.pitch;
    return ["move_notes", { ...base, ticks, steps, copy: reach.copy }] as const;
  };
  drag(event, {
    move: (reach) => {
      const asked = wish(reach);
      if (asked) trial.ask(asked[0], asked[1] as never);
    },
    drop: (reach) => {
      const asked = reach.moved ? wish(reach) : null;
      trial.end(asked !== null);
      if (asked) void editNotes(asked[0], asked[1] as never);
      else if (mode !== "only" || known) chooseNote(clip.id, index, mode);
    },
    cancel: () => trial.end(false),
  });
}

const USUAL_VELOCITY = 96;
let usualLength: Ticks = 240;

/** A press on bare ground: a note is drawn there, as long as the hand goes; lasso and span choose notes. */
export function pressNoteGround(event: PointerEvent, ground: NoteGround, [x, y]: [Px, Px], touch: boolean): void {
  const { tool } = viewNow();
  if (tool === "lasso" || tool === "range" || event.shiftKey) return pressNoteLoop(event, ground, [x, y]);
  if (tool === "rub" || touch) return;
  const { clip } = ground;
  const trial = previewer();
  const made = (reach: Reach | null) => noteAt(ground, [x, y], reach);
  drag(event, {
    move: (reach) => trial.ask("add_notes", { clip_id: clip.id, notes: [made(reach)] }),
    drop: (reach) => {
      trial.end(true);
      const note = made(reach.moved ? reach : null);
      if (reach.moved) usualLength = note.length_ticks;
      void editNotes("add_notes", { clip_id: clip.id, notes: [note] });
    },
    cancel: () => trial.end(false),
  });
}

/** A finger's tap on bare ground adds a note. */
export const tapNoteGround = (ground: NoteGround, spot: [Px, Px]): void =>
  void editNotes("add_notes", { clip_id: ground.clip.id, notes: [noteAt(ground, spot, null)] });

/** The note that a press on bare ground would make. */
export function noteAt(ground: NoteGround, [x, y]: [Px, Px], reach: Reach | null): ClipPart["notes"][number] {
  const grid = reach?.free ? 0 : gridNow();
  const tick = Math.max(0, grid > 0 ? Math.floor(inClip(ground, x) / grid) * grid : Math.round(inClip(ground, x)));
  const length = reach
    ? Math.max(grid || 15, snapTick(inClip(ground, x + reach.dx) - tick, grid))
    : Math.max(usualLength, 15);
  return { tick, length_ticks: Math.round(length), pitch: pitchAt(ground.rows, y), velocity: USUAL_VELOCITY };
}

/** Draws a loop about notes of one repeat. */
function pressNoteLoop(event: PointerEvent, ground: NoteGround, [x, y]: [Px, Px]): void {
  const { clip, rows, pass, pxPerTick } = ground;
  const before = event.shiftKey && notesNow().clipId === clip.id ? notesNow().chosen : [];
  const [x0, y0] = [event.clientX, event.clientY];
  drag(event, {
    move: ({ dx, dy }) =>
      setHand({
        loop: { left: Math.min(x0, x0 + dx), top: Math.min(y0, y0 + dy), width: Math.abs(dx), height: Math.abs(dy) },
      }),
    drop: ({ dx, dy }) => {
      setHand({ loop: null });
      const [left, right] = [Math.min(x, x + dx), Math.max(x, x + dx)];
      const [top, foot] = [Math.min(y, y + dy), Math.max(y, y + dy)];
      const inside = clip.notes.flatMap((note, i) => {
        const start = (pass[0] + note.tick - pass[2]) * pxPerTick;
        const row = rowY(rows, note.pitch);
        const across = start < right && start + note.length_ticks * pxPerTick > left;
        return across && row < foot && row + rows.height > top ? [i] : [];
      });
      chooseNotes(clip.id, [...before, ...inside]);
    },
    cancel: () => setHand({ loop: null }),
  });
}

/** How much louder or softer a key makes them. */
const LOUDER = 8;

type Nudge = { ticks?: number; steps?: number; add?: number };

/** Makes an edit of the chosen notes that is one step of undo with those of its kind before it. */
async function nudgeNotes(name: "move_notes" | "stretch_notes" | "set_velocity", by: Nudge): Promise<void> {
  const choice = chosenNotes();
  if (!choice) return;
  await withNotes(name, { ...by, ...nudging(`${name} ${choice.clip.id} ${choice.chosen.length}`) } as never);
  backToNote();
}

/** Keys with Ctrl for the chosen notes: louder and softer, longer and shorter. */
export function heldNoteKey(key: string, fine: boolean): boolean {
  const grid = fine ? 10 : gridNow() || 10;
  const add = fine ? 1 : LOUDER;
  if (key === "arrowup") void nudgeNotes("set_velocity", { add });
  else if (key === "arrowdown") void nudgeNotes("set_velocity", { add: -add });
  else if (key === "arrowright") void nudgeNotes("stretch_notes", { ticks: grid });
  else if (key === "arrowleft") void nudgeNotes("stretch_notes", { ticks: -grid });
  else return false;
  return true;
}

/** Keys for the chosen notes: they move them; with Shift they make them longer or shorter, or go an octave. */
export function noteKey(key: string, shift: boolean): boolean {
  const grid = gridNow() || 10;
  if (shift && key === "ArrowLeft") void nudgeNotes("stretch_notes", { ticks: -grid });
  else if (shift && key === "ArrowRight") void nudgeNotes("stretch_notes", { ticks: grid });
  else if (key === "ArrowLeft") void nudgeNotes("move_notes", { ticks: -grid });
  else if (key === "ArrowRight") void nudgeNotes("move_notes", { ticks: grid });
  else if (key === "ArrowUp") void nudgeNotes("move_notes", { steps: shift ? 12 : 1 });
  else if (key === "ArrowDown") void nudgeNotes("move_notes", { steps: shift ? -12 : -1 });
  else return false;
  return true;
}
