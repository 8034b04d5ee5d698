import type { Catalogue, MissingSounds, OfflineCopy, ShelfEntry, Snapshot } from "./types";

/** Where the browser keeps the last song, and under which name. */
const STORE = "kind-satchel-song";
const COPY = "/kept-song";

/** A song as it stood at a moment, with all that shows and plays it. */
export interface KeptSong {
  /** Milliseconds since 1970. */
  at: number;
  snapshot: Snapshot;
  catalogue: Catalogue;
  missing: MissingSounds;
  entry: ShelfEntry[];
  offline: OfflineCopy;
}

/** Whether this page keeps a song for when the server is away: not where the server says no, nor where it may not. */
export const canKeep = (): boolean =>
  "caches" in window && "serviceWorker" in navigator && "installable" in document.documentElement.dataset;

export const soundPath = (id: string): string => `/sounds/${id}.wav`;

/** Keeps a song in place of the one kept before, with its sounds; of several tabs one after the other. */
export const keepSong = (song: KeptSong, sounds: string[]): Promise<void> =>
  navigator.locks.request(STORE, () => keep(song, sounds));

async function keep(song: KeptSong, sounds: string[]): Promise<void> {
  const store = await caches.open(STORE);
  const wanted = new Set(sounds.map(soundPath));
  const there = new Set((await store.keys()).map(({ url }) => new URL(url).pathname));
  for (const path of wanted) if (!there.has(path)) await store.add(path);
  await store.put(COPY, new Response(JSON.stringify(song), { headers: { "Content-Type": "application/json" } }));
  for (const path of there) if (path !== COPY && !wanted.has(path)) await store.delete(path);
  read = null;
}

/** A sound of the song kept. */
export async function keptSound(id: string): Promise<Response | undefined> {
  return canKeep() ? (await caches.open(STORE)).match(soundPath(id)) : undefined;
}

let read: Promise<KeptSong | null> | null = null;

/** The song that is kept, if there is one. */
export function keptSong(): Promise<KeptSong | null> {
  if (!canKeep()) return Promise.resolve(null);
  read ??= caches
    .open(STORE)
    .then((store) => store.match(COPY))
    .then((found) => (found ? (found.json() as Promise<KeptSong>) : null));
  return read;
}

/** What the server would have answered about the song that is kept; undefined for what is not kept. */
export async function keptAnswer(path: string): Promise<unknown> {
  const kept = await keptSong();
  if (!kept) return undefined;
  const { snapshot, catalogue, missing, entry, offline } = kept;
  const [place, query] = path.split("?");
  const own = `/api/songs/${snapshot.id}`;
  if (place === `${own}/playback`) {
    const from = Number(new URLSearchParams(query).get("from_tick"));
    return offline.stretches.find(({ from_tick }) => from_tick === from);
  }
  const answers: Record<string, unknown> = {
    "/api/catalogue": catalogue,
    "/api/songs": entry,
    "/api/bin": [],
    [own]: snapshot,
    [`${own}/missing`]: missing,
    [`${own}/clock`]: offline.clock,
    [`${own}/drawing`]: offline.drawing,
    [`${own}/heard`]: offline.heard,
  };
  return answers[place];
}
