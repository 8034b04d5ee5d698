import type { Catalogue } from "../api/types";
import { type Acting, acting } from "./acting";
import {
  chainId,
  type DeviceEntry,
  type Placed,
  parametersOf,
  parametersOfClip,
  TEMPO,
  tempoFound,
  trackOf,
} from "./catalogue";
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

let last: { tracks: Model["tracks"]; clips: Model["clips"]; entries: Entry[] } | null = null;

/** Every parameter of the song; the same list while its tracks and clips stay the same. */
export function entriesOf(catalogue: Catalogue, model: Model): Entry[] {
  const { tracks, clips } = model;
  if (last?.tracks === tracks && last.clips === clips) return last.entries;
  const names = new Map(tracks.map(({ id, name }) => [id, name]));
  const own = tracks.flatMap((track) => entries(track.id, track.name, parametersOf(catalogue, tracks, track)));
  const inClips = Object.values(clips).flatMap((clip) => {
    if (!clip.devices?.length) return [];
    const trackId = trackOf(model, `${chainId(clip)}/`);
    const home = names.get(trackId);
    return entries(trackId, `${home ? `${home}, ` : ""}clip ${clip.name}`, parametersOfClip(catalogue, clip));
  });
  const tempo = {
    ...tempoFound(catalogue, model),
    track: "Song",
    trackId: trackOf(model, TEMPO),
    text: "song tempo bpm",
  };
  last = { tracks, clips, entries: [...own, ...inClips, tempo] };
  return last.entries;
}

const entries = (trackId: string, track: string, devices: DeviceEntry[]): Entry[] =>
  devices.flatMap((device) =>
    device.list.map((placed) => ({
      ...placed,
      track,
      trackId,
      device: device.name,
      text: `${track} ${device.name} ${placed.entry.name}`.toLowerCase(),
    })),
  );

export type Found = Entry & { acts: Acting };

interface Wish {
  words: string;
  filter: Filter;
  trackId: string | null;
  clipId: string | null;
  lately: string[];
}

const anything = ({ clip, lane, macro }: Acting): boolean => Boolean(clip || lane || macro);

/** Entries that hold every word, by turn: touched lately, then automated, then the rest. */
export function search(entries: Entry[], find: Lookup, { words, filter, trackId, clipId, lately }: Wish): Found[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const inClip = new Set((find.envelopes[`clip/${clipId}`] ?? []).map((envelope) => envelope.target));
  const turn = (entry: Found): number => {
    const late = lately.indexOf(entry.address);
    return late >= 0 ? late : anything(entry.acts) ? 1000 : 2000;
  };
  return entries
    .filter(
      ({ text, address, trackId: own }) =>
        wanted.every((word) => text.includes(word)) &&
        (filter !== "track" || own === trackId) &&
        (filter !== "clip" || inClip.has(address)),
    )
    .map((entry): Found => ({ ...entry, acts: acting(find, entry.address) }))
    .filter((entry) => filter !== "automated" || anything(entry.acts))
    .map((entry, i): [number, number, Found] => [turn(entry), i, entry])
    .sort((a, b) => a[0] - b[0] || a[1] - b[1])
    .map(([, , entry]) => entry);
}
