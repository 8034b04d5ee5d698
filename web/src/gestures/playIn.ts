import type { Voice } from "../sound/parts";
import { player } from "../sound/player";
import { playInNow, setPlayIn } from "../state/playIn";
import { song } from "../state/song";
import { viewNow } from "../state/view";
import { recorder } from "./recorder";

/** Notes that a hand holds, each with where it sounds. */
const voices = new Map<number, Voice | null>();

/** The track that is played: the one at hand, if it plays notes. */
export function playedTrack(): string | null {
  const { trackId } = viewNow();
  return song().model.tracks.some(({ id, kind }) => id === trackId && kind === "notes") ? trackId : null;
}

const show = (): void => setPlayIn({ held: [...voices.keys()] });

/** A key goes down: it sounds at once on the track at hand, and is recorded while that is on. */
export function noteOn(pitch: number, velocity: number, at = performance.now()): void {
  const trackId = playInNow().recording ?? playedTrack();
  if (!trackId || pitch < 0 || pitch > 127) return;
  if (voices.has(pitch)) noteOff(pitch, at);
  recorder.noteOn(pitch, velocity, at);
  const voice = player.sound(trackId, pitch, velocity);
  voices.set(pitch, voice);
  show();
  if (!voice) void player.awake().then(() => late(trackId, pitch, velocity));
}

/** The first note of all wakes the sound; it is heard as soon as that is awake, if it is held still. */
function late(trackId: string, pitch: number, velocity: number): void {
  if (voices.get(pitch) === null) voices.set(pitch, player.sound(trackId, pitch, velocity));
}

export function noteOff(pitch: number, at = performance.now()): void {
  if (!voices.has(pitch)) return;
  recorder.noteOff(pitch, at);
  voices.get(pitch)?.release?.(player.now);
  voices.delete(pitch);
  show();
}

/** Lets everything go, as when the window is left. */
export function allOff(): void {
  for (const pitch of [...voices.keys()]) noteOff(pitch);
}

const NOTE_OFF = 0x80;
const NOTE_ON = 0x90;

/** What a keyboard sends: notes on any channel (MIDI 1.0: a note on without velocity is a note off). */
export function message(bytes: Uint8Array | number[], at: number): void {
  const [status, pitch, velocity] = bytes;
  const moment = at - playInNow().latenessMs;
  const kind = status & 0xf0;
  if (kind === NOTE_ON && velocity > 0) noteOn(pitch, velocity, moment);
  else if (kind === NOTE_OFF || kind === NOTE_ON) noteOff(pitch, moment);
}
