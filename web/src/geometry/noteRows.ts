import type { ClipPart, Px } from "../api/types";
import { KIT_TOP, NAME_HEIGHT, VELOCITY_HEIGHT } from "./heights";

/** The fewest rows of pitches; fewer notes have room around them. */
const FEWEST = 13;
const AROUND = 2;
const MIDDLE = 60;

/** Rows of pitches, the highest at the top; of a kit, a row for each of its sounds. */
export interface NoteRows {
  pitches: number[];
  top: Px;
  /** Of one row. */
  height: Px;
  /** Where the velocities begin. */
  foot: Px;
}

export function noteRows(clips: ClipPart[], drums: Record<string, string> | null, height: Px): NoteRows {
  const used = [...new Set(clips.flatMap((clip) => clip.notes.map((note) => note.pitch)))].sort((a, b) => a - b);
  const pitches = drums
    ? [...new Set([...Object.keys(drums).map(Number), ...used])].sort((a, b) => a - b)
    : around(used);
  const top = drums ? KIT_TOP : NAME_HEIGHT + 4;
  const foot = height - VELOCITY_HEIGHT;
  return { pitches: pitches.reverse(), top, height: (foot - top - 4) / pitches.length, foot };
}

function around(used: number[]): number[] {
  const [first, last] = [used[0] ?? MIDDLE - 6, used[used.length - 1] ?? MIDDLE + 6];
  const more = Math.max(AROUND, Math.ceil((FEWEST - (last - first + 1)) / 2));
  const [low, high] = [Math.max(0, first - more), Math.min(127, last + more)];
  return Array.from({ length: high - low + 1 }, (_, i) => low + i);
}

export const rowY = (rows: NoteRows, pitch: number): Px => rows.top + rows.pitches.indexOf(pitch) * rows.height;

/** The pitch of the row at a height; the nearest one above and below all rows. */
export function pitchAt({ pitches, top, height }: NoteRows, y: Px): number {
  const place = Math.floor((y - top) / height);
  return pitches[Math.min(Math.max(place, 0), pitches.length - 1)];
}

/** How loud a velocity is at a height of the strip. */
export function velocityAt({ foot }: NoteRows, y: Px): number {
  const share = 1 - (y - foot - 2) / (VELOCITY_HEIGHT - 4);
  return Math.min(Math.max(Math.round(share * 127), 1), 127);
}

export const velocityY = ({ foot }: NoteRows, velocity: number): Px =>
  foot + 2 + (1 - velocity / 127) * (VELOCITY_HEIGHT - 4);
