import type { ClipPart, Pass, Px, Ticks } from "../api/types";
import type { Viewport } from "../geometry/viewport";

const NAMES = ["C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"];

/** The name of a note, with middle C (60) as C4. */
export const noteName = (pitch: number): string => `${NAMES[pitch % 12]}${Math.floor(pitch / 12) - 1}`;

/** Draws the notes of one repeat, pitch upwards, faintly behind the curves; with their names where there is room. */
export function drawNotes(
  pen: CanvasRenderingContext2D,
  clip: ClipPart,
  [from, to, into]: Pass,
  view: Viewport,
  left: Px,
  height: Px,
  nameOf: (pitch: number) => string,
): void {
  const pitches = clip.notes.map((note) => note.pitch);
  const [low, high] = [Math.min(...pitches) - 1, Math.max(...pitches) + 1];
  const line = Math.min(8, Math.max(3, (height - 26) / (high - low + 1)));
  for (const note of clip.notes) {
    const start = from + note.tick - into;
    if (start < from || start >= to) continue;
    const end = Math.min(start + note.length_ticks, to);
    const y = 22 + ((high - note.pitch) / Math.max(1, high - low)) * (height - 34 - line);
    const [x, width] = [start * view.pxPerTick - left, (end - start) * view.pxPerTick - 1];
    pen.fillRect(x, y, Math.max(2, width), line);
    if (width < 32 || line < 5) continue;
    pen.globalAlpha = 0.75;
    pen.fillText(nameOf(note.pitch), x + 2, y - 2, width * 2);
    pen.globalAlpha = 0.3;
  }
}

/** Room for the name above what is drawn small, and under it. */
const SMALL_TOP: Px = 17;
const SMALL_FOOT: Px = 4;

/** Draws the notes of one repeat small: a line each, pitch upwards. */
export function drawNotesSmall(
  pen: CanvasRenderingContext2D,
  clip: ClipPart,
  [from, to, into]: Pass,
  view: Viewport,
  left: Px,
  height: Px,
): void {
  const pitches = clip.notes.map((note) => note.pitch);
  const [low, high] = [Math.min(...pitches), Math.max(...pitches)];
  for (const note of clip.notes) {
    const start = from + note.tick - into;
    if (start < from || start >= to) continue;
    const end = Math.min(start + note.length_ticks, to);
    const share = (high - note.pitch) / Math.max(1, high - low);
    const y = SMALL_TOP + share * (height - SMALL_TOP - SMALL_FOOT - 2);
    pen.fillRect(start * view.pxPerTick - left, y, Math.max(1.5, (end - start) * view.pxPerTick - 1), 2);
  }
}

/** Draws the waveform of one repeat. */
export function drawWave(
  pen: CanvasRenderingContext2D,
  { peaks, seconds }: { peaks: number[]; seconds: number },
  { bpm, start_seconds = 0, backwards }: NonNullable<ClipPart["audio"]>,
  [from, to, into]: Pass,
  view: Viewport,
  left: Px,
  height: Px,
  length: Ticks,
): void {
  const [top, foot] = height > 60 ? [20, 8] : [SMALL_TOP, SMALL_FOOT];
  const middle = (top + height - foot) / 2;
  const perSecond = peaks.length / seconds;
  const each = ((2 / view.pxPerTick) * 60 * perSecond) / 960 / bpm;
  for (
    let x = Math.max(from * view.pxPerTick, left);
    x < Math.min(to * view.pxPerTick, left + pen.canvas.width);
    x += 2
  ) {
    const place = x / view.pxPerTick - from + into;
    const at = start_seconds + ((backwards ? length - place : place) * 60) / 960 / bpm;
    const first = Math.floor(at * perSecond);
    let peak = 0;
    for (let i = first; i < Math.max(first + 1, first + each); i++) if (peaks[i] > peak) peak = peaks[i];
    pen.fillRect(x - left, middle - (peak * (height - top - foot)) / 2, 1.4, Math.max(1, peak * (height - top - foot)));
  }
}
