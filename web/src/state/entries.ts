import type { Catalogue } from "../api/types";
import { type Acting, acting } from "./acting";
import { type Placed, parametersOf } from "./catalogue";
import type { Lookup } from "./lookup";
import type { Model } from "./model";

export interface Entry extends Placed {
  track: string;
  trackId: string;
  device: string;
  /** What is searched, in small letters. */
  text: string;
}

export type Filter = "all" | "clip" | "track" | "automated";

let last: { tracks: Model["tracks"]; entries: Entry[] } | null = null;

/** Every parameter of the song; the same list while its tracks stay the same. */
export function entriesOf(catalogue: Catalogue, tracks: Model["tracks"]): Entry[] {
  if (last?.tracks === tracks) return last.entries;
  const entries = tracks.flatMap((track) =>
    parametersOf(catalogue, tracks, track).flatMap((device) =>
      device.list.map((placed) => ({
        ...placed,
        track: track.name,
        trackId: track.id,
        device: device.name,
        text: `${track.name} ${device.name} ${placed.entry.name}`.toLowerCase(),
      })),
    ),
  );
  last = { tracks, entries };
  return entries;
}

export type Found = Entry & { acts: Acting };

interface Wish {
  words: string;
  filter: Filter;
  trackId: string | null;
  clipId: string | null;
  lately: string[];
}

/** Entries that hold every word, by turn: touched lately, then automated, then the rest. */
export function search(entries: Entry[], find: Lookup, { words, filter, trackId, clipId, lately }: Wish): Found[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const inClip = new Set((find.envelopes[`clip/${clipId}`] ?? []).map((envelope) => envelope.target));
  const turn = (entry: Found): number => {
    const late = lately.indexOf(entry.address);
    return late >= 0 ? late : entry.acts.clip || entry.acts.lane ? 1000 : 2000;
  };
  return entries
    .filter(
      ({ text, address, trackId: own }) =>
        wanted.every((word) => text.includes(word)) &&
        (filter !== "track" || own === trackId) &&
        (filter !== "clip" || inClip.has(address)),
    )
    .map((entry): Found => ({ ...entry, acts: acting(find, entry.address) }))
    .filter((entry) => filter !== "automated" || entry.acts.clip || entry.acts.lane)
    .map((entry, i): [number, number, Found] => [turn(entry), i, entry])
    .sort((a, b) => a[0] - b[0] || a[1] - b[1])
    .map(([, , entry]) => entry);
}
