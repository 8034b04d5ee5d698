import { newToken, Refused, shelf } from "../api/client";
import type { ClipPart, RegionPart, SoundEntry, Ticks } from "../api/types";
import { barStart } from "../geometry/viewport";
import { controlsText } from "../state/controls";
import { editAndTell } from "../state/edits";
import { tell } from "../state/notice";
import { song } from "../state/song";
import { addSound } from "../state/soundList";
import { placeAt, tickAtX } from "../state/stage";
import { TooLong, toWave } from "../state/waves";

/** Where a sound is to lie: on a track of audio, or on a new one. */
export interface Goal {
  trackId: string | null;
  tick: Ticks;
}

/** The bar and the track at a place of the screen; a track that plays no recorded sounds is none. */
export function goalAt(x: number, y: number): Goal {
  const { model } = song();
  const place = placeAt(x, y);
  const track = model.tracks.find(({ id, kind }) => id === place?.trackId && kind === "audio");
  return { trackId: track?.id ?? null, tick: Math.max(0, barStart(model.head.meters, tickAtX(x))) };
}

const QUICK_BPM = 120;
export const MIDI = /\.midi?$/i;

/** Takes the tracks of a MIDI file in, from a tick on. */
async function placeMidi(file: File, tick: Ticks): Promise<void> {
  const token = newToken();
  tell("done", `Reading ${file.name} …`);
  try {
    const { document, left_out } = await shelf.readMidi(file.name.replace(MIDI, ""), file, controlsText(), token);
    const made = await editAndTell("take_tracks", { document, start_tick: tick });
    if (made && left_out.length > 0) tell("done", `Taken in; left out: ${left_out.join(", ")}`, true);
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    tell("fault", `${file.name}: ${error.faults.map(({ message }) => message).join(" ")}`);
  }
}

/** Takes files in and places them as clips, one after the other; what is wrong with one is said, and the next taken. */
export async function placeFiles(files: File[], goal: Goal): Promise<void> {
  let { trackId, tick } = goal;
  for (const file of files) {
    if (MIDI.test(file.name)) {
      await placeMidi(file, goal.tick);
      continue;
    }
    const sound = await takenIn(file);
    if (!sound) continue;
    const made = await placeSound(sound, { trackId, tick });
    const region = made?.parts.find(([kind, , record]) => kind === "region" && record !== null)?.[2] as
      | { owner: string; start_tick: Ticks; length_ticks: Ticks }
      | undefined;
    if (!region) continue;
    trackId = region.owner.slice("track/".length);
    tick = region.start_tick + region.length_ticks;
  }
}

/** Takes the first of some files in: as the sound of a clip that plays one, else placed where its region begins. */
export async function giveFiles(files: File[], clip: ClipPart, region: RegionPart): Promise<void> {
  const goal = { trackId: clip.kind === "audio" ? region.owner.slice("track/".length) : null, tick: region.start_tick };
  if (clip.kind !== "audio" || MIDI.test(files[0].name)) return placeFiles(files, goal);
  const sound = await takenIn(files[0]);
  if (!sound) return;
  const { id, seconds, guess } = sound;
  await editAndTell("set_audio", { clip_id: clip.id, sound: id, seconds, bpm: guess?.bpm ?? QUICK_BPM });
}

/** A sound of a file, in the store; what is wrong with it is said. */
async function takenIn(file: File): Promise<SoundEntry | null> {
  tell("done", `Taking in ${file.name} …`);
  const wave = await toWave(file).catch((error) => {
    const long = error instanceof TooLong;
    tell("fault", long ? `${file.name}: ${error.message}` : `${file.name} is no sound that this browser can read.`);
    return null;
  });
  return wave && addSound(wave, (message) => tell("fault", `${file.name}: ${message}`));
}

interface Placed {
  id: string;
  name: string;
  seconds: number;
  guess: { bpm: number } | null;
}

/** Places a sound of the store at the tempo it seems to have. */
export const placeSound = ({ id, name, seconds, guess }: Placed, { trackId, tick }: Goal) =>
  editAndTell("place_sound", {
    ...(trackId ? { track_id: trackId } : {}),
    start_tick: tick,
    sound: id,
    name,
    seconds,
    bpm: guess?.bpm ?? QUICK_BPM,
  });
