import { create } from "zustand";
import { catalogue, Refused, shelf, songApi } from "../api/client";
import { isAway } from "../api/connection";
import { canKeep, keepSong, keptSong } from "../api/kept";
import { blockTicks, soundIds } from "./model";
import { tell } from "./notice";
import { performingNow } from "./performing";
import { type SongState, song, useSong } from "./song";
import { transportNow } from "./transport";

/** A song is kept once it has rested so long; and after that not before so many times what it took. */
const REST_MS = 5000;
const REST_TIMES = 10;

/** Which song is kept for when the server is away; null for none. */
export const useKept = create<{ songId: number | null }>(() => ({ songId: null }));

/** Reads which song is kept. */
export const readKept = async (): Promise<void> =>
  useKept.setState({ songId: (await keptSong().catch(() => null))?.snapshot.id ?? null });

let timer = 0;
let took = 0;
/** How often it was said that the song is not kept. */
let told = 0;

/** Keeps the song that is open, for when the server is away, whenever it has rested. */
export function keepOpenSong(): void {
  if (!canKeep()) return;
  useSong.subscribe((now, before) => {
    if (now.songId !== before.songId) told = took = 0;
    if (now.songId !== before.songId || now.revision !== before.revision) later();
  });
}

function later(): void {
  clearTimeout(timer);
  if (song().songId !== null) timer = window.setTimeout(() => void keep(), Math.max(REST_MS, REST_TIMES * took));
}

async function keep(): Promise<void> {
  const { songId, revision } = song();
  if (songId === null) return;
  if (isAway() || transportNow().playing || performingNow().pass) return later();
  const same = () => song().songId === songId && song().revision === revision;
  try {
    if (await kept(songId, song())) await readKept();
    else if (!same()) later();
  } catch (error) {
    sayOnce(error);
  }
}

/** Returns whether what came was all of one state. */
async function kept(id: number, { model, revision }: SongState): Promise<boolean> {
  const api = songApi(id);
  const began = performance.now();
  const [snapshot, known, missing, list, offline] = await Promise.all([
    api.snapshot(),
    catalogue(),
    api.missing(),
    shelf.list(),
    api.offline(blockTicks(model)),
  ]);
  took = performance.now() - began;
  if (snapshot.revision !== revision || offline.revision !== revision) return false;
  const gone = new Set(missing.map(({ sound }) => sound));
  const sounds = soundIds(model, known).filter((sound) => !gone.has(sound));
  const entry = list.filter((one) => one.id === id);
  await keepSong({ at: Date.now(), snapshot, catalogue: known, missing, entry, offline }, sounds);
  return true;
}

/** The browser has no room, or the song is too large; a server that went away will be asked again. */
function sayOnce(error: unknown): void {
  if (isAway() || told++ > 0) return;
  const why = error instanceof Refused ? error.message : "The browser has no room for it.";
  tell("fault", `This song will not open while the server is away. ${why}`);
}
