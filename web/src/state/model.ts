import type { Catalogue, ClipPart, EnvelopePart, Head, Part, RegionPart, TrackPart } from "../api/types";

/** A song as the screen holds it: parts by id, as the server sent them. */
export interface Model {
  head: Head;
  tracks: TrackPart[];
  regions: Record<string, RegionPart>;
  clips: Record<string, ClipPart>;
  envelopes: Record<string, EnvelopePart>;
}

const EMPTY_HEAD: Head = {
  name: "",
  meters: [{ bar: 1, tick: 0, beats: 4, unit: 4, beat_ticks: 960, bar_ticks: 3840 }],
  bpm: 120,
  tempo_knob: 0,
  range: { on: false, start_tick: 0, end_tick: 3840 },
  next_id: 1,
};

export const EMPTY: Model = { head: EMPTY_HEAD, tracks: [], regions: {}, clips: {}, envelopes: {} };

/** Puts changed parts onto a model; null takes a part away. What no part names stays the same object. */
export function applyParts(model: Model, parts: Part[]): Model {
  const next = { ...model };
  const copied = new Set<string>();
  const table = <T>(name: "regions" | "clips" | "envelopes"): Record<string, T> => {
    if (!copied.has(name)) Object.assign(next, { [name]: { ...next[name] } });
    copied.add(name);
    return next[name] as Record<string, T>;
  };
  const put = <T>(name: "regions" | "clips" | "envelopes", id: string, record: T | null) => {
    if (record === null) delete table(name)[id];
    else table<T>(name)[id] = record;
  };
  const tracks = new Map(next.tracks.map((track) => [track.id, track]));
  for (const [kind, id, record] of parts) {
    if (kind === "song") next.head = record as Head;
    else if (kind === "region") put("regions", id, record);
    else if (kind === "clip") put("clips", id, record);
    else if (kind === "envelope") put("envelopes", id, record);
    else if (record === null) tracks.delete(id);
    else tracks.set(id, record as TrackPart);
  }
  if (parts.some(([kind]) => kind === "track")) next.tracks = [...tracks.values()].sort((a, b) => a.place - b.place);
  return next;
}

/** The tick at which the last region ends, with room to go on. */
export const songEnd = (model: Model): number =>
  Object.values(model.regions).reduce((end, r) => Math.max(end, r.start_tick + r.length_ticks), 0);

const BLOCK_BARS = 8;

/** The song is played a block at a time, each so long. */
export const blockTicks = ({ head }: Model): number => BLOCK_BARS * head.meters[0].bar_ticks;

/** The recorded sounds that a song can play. */
export function soundIds({ tracks, clips }: Model, { drum_sounds }: Catalogue): string[] {
  const all = Object.values(clips);
  const sampled = [...tracks, ...all].flatMap((owner) => owner.devices ?? []).flatMap(({ sound }) => sound ?? []);
  return [...new Set([...Object.values(drum_sounds), ...sampled, ...all.flatMap((clip) => clip.audio?.sound ?? [])])];
}
