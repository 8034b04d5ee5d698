import type { Ticks } from "../api/types";
import { barStart } from "../geometry/viewport";
import { editAndTell } from "../state/edits";
import { tell } from "../state/notice";
import { song } from "../state/song";
import { addSound } from "../state/soundList";
import { placeAt } from "../state/stage";
import { toWave } from "../state/waves";

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
  return { trackId: track?.id ?? null, tick: Math.max(0, barStart(model.head.meters, place?.tick ?? 0)) };
}

const QUICK_BPM = 120;

/** Takes files in and places them as clips, one after the other; what is wrong with one is said, and the next taken. */
export async function placeFiles(files: File[], goal: Goal): Promise<void> {
  let { trackId, tick } = goal;
  for (const file of files) {
    tell("done", `Taking in ${file.name} …`);
    const wave = await toWave(file).catch(() => null);
    if (!wave) {
      tell("fault", `${file.name} is no sound that this browser can read.`);
      continue;
    }
    const sound = await addSound(wave, (message) => tell("fault", `${file.name}: ${message}`));
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
