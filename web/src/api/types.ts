import type { EnvelopeRecord, NoteRecord, RegionRecord, SongDocument, TrackRecord } from "./generated/song";

export type { EnvelopeRecord, NoteRecord, RegionRecord } from "./generated/song";
export type { EditInputs } from "./generated/edits";
export type { Snippet } from "./generated/paste_snippet";
export type { SongStretch } from "./generated/paste_time";
export type PointRecord = EnvelopeRecord["points"][number];

/** Song positions and lengths: 960 ticks to the quarter note. */
export type Ticks = number & { readonly unit?: "ticks" };
/** Clock time from the start of the song. */
export type Seconds = number & { readonly unit?: "seconds" };
/** Pixels across or down. */
export type Px = number & { readonly unit?: "px" };
/** 0..1, the whole travel of a knob; -1..1 in a shift envelope. */
export type Normalised = number & { readonly unit?: "normalised" };

export type Meter = SongDocument["meter"] & { beat_ticks: Ticks; bar_ticks: Ticks };
export type Head = Pick<SongDocument, "name" | "tempo" | "range" | "next_id" | "points_follow"> & { meter: Meter };
export type TrackPart = Omit<TrackRecord, "lanes" | "regions"> & { place: number };
export type RegionPart = RegionRecord & { owner: string };
/** The points come when a track is drawn. `acts`: whether it is on and holds any. */
export type EnvelopePart = EnvelopeRecord & { owner: string; place: number; acts: boolean };
export interface ClipPart {
  id: string;
  name: string;
  length_ticks: Ticks;
  notes: NoteRecord[];
  audio: { sound: string; bpm: number } | null;
  kind: ClipKind;
}
export type ClipKind = "notes" | "audio" | "carrier";
export type Part = [kind: string, id: string, record: unknown];

/** [from, to, position at from, rate] in song ticks: where an envelope runs while a region sounds. */
export type Window = [from: Ticks, to: Ticks, position: Ticks, rate: number];
/** [from, to, ticks into the clip] of a repeat of the material. */
export type Pass = [from: Ticks, to: Ticks, into: Ticks];
/** tick, value, tick, value, ... */
export type Corners = number[];

export interface Drawing {
  curves: Record<string, Corners>;
  /** Envelope id -> places of points where a fade does not start level. */
  uneven: Record<string, number[]>;
  /** Envelope id -> ticks after which it meets its loop again, for those with a length of their own. */
  meetings?: Record<string, Ticks>;
  windows: Record<string, Record<string, Window[]>>;
  passes: Record<string, Pass[]>;
  /** Region id -> envelope id -> ticks where an envelope of its own length and its loop begin together again. */
  marks: Record<string, Record<string, Ticks[]>>;
}

/** Drawings of some tracks, with the whole records of their clips and envelopes. */
export type TrackDrawing = Drawing & { revision: number; parts: Part[] };

export interface Snapshot {
  id: number;
  revision: number;
  undo: string | null;
  redo: string | null;
  /** Ids of tracks not heard for being muted or because others are soloed. */
  silent: string[];
  /** Where a song of an older form sounds different now, until that was seen. */
  places: { address: string; from_tick: Ticks; to_tick: Ticks; text: string }[];
  parts: Part[];
}

export interface Stretch {
  from_tick: Ticks;
  to_tick: Ticks;
  from_seconds: Seconds;
  to_seconds: Seconds;
  /** address -> seconds, value in the engine's unit, ... */
  ramps: Record<string, number[]>;
  events?: SoundEvent[];
}

export interface SoundEvent {
  kind: "note" | "audio";
  track_id: string;
  region_id: string;
  start_tick: Ticks;
  start_seconds: Seconds;
  end_seconds: Seconds;
  pitch?: number;
  velocity?: number;
  sound?: string;
  into_seconds?: Seconds;
  rate?: number;
}

/** Two clip envelopes set one parameter from a tick up to another: each by its id and the region it sounds in. */
export type Conflict = [from: Ticks, to: Ticks, winner: [envelopeId: string, regionId: string], loser: [envelopeId: string, regionId: string]];

export type Changed = Drawing & {
  parts: Part[];
  heard: Record<string, Corners>;
  conflicts?: Record<string, Conflict[]>;
  silent: string[];
  sound?: Stretch;
  /** Stretches put in place of what is known, where only they differ. */
  patches?: { curves: Record<string, CurvePatch[]>; heard: Record<string, CurvePatch[]> };
  words: string;
  /** What comes with it. */
  tells: Tell[];
};

/** What an edit brings with it: a stable code, what it is about, and a phrase for people. */
export interface Tell {
  code: "along" | "lost" | "follow" | "cut" | "separated" | "held" | "same" | "difference" | "unmatched" | "loose";
  ids: string[];
  text: string;
}

/** What another tab did. The change itself is left out where it is very large. */
export interface News {
  step: "edit" | "undo" | "redo";
  revision: number;
  words: string;
  undo: string | null;
  redo: string | null;
  tab: string | null;
  change?: Drawing & {
    parts: Part[];
    silent: string[];
    /** Address -> stretches of song ticks in which what is heard may differ. */
    touched: Record<string, [from: Ticks, to: Ticks][]>;
    /** The first tick whose second may differ. */
    clock_from: Ticks | null;
  };
}

/** One move of a clip or track, and what it would be on another. */
export interface MoveRow {
  envelope_id: string;
  name: string;
  points: number;
  target: string | null;
  target_name: string | null;
  replaces: boolean;
}
export interface TrackCounts {
  lanes: number;
  envelopes: number;
  clips: number;
  regions: number;
}
export type Change = Changed & { revision: number; undo: string | null; redo: string | null };
/** Texts are left out where very many points are touched. */
export type TouchedPoint = PointRecord & { index: number; text?: string; position?: string };
/** A stretch of a curve, to be put in place of what was there. */
export type CurvePatch = [from: Ticks, to: Ticks, corners: Corners];
export type Preview = Changed & { points: Record<string, TouchedPoint[]> };

export interface Step {
  kind: string;
  name: string | null;
  does: string | null;
  value: Normalised;
  text: string;
  envelope_id: string | null;
  region_id: string | null;
  overruled: boolean;
}
export interface Explanation {
  address: string;
  name: string;
  tick: Ticks;
  position: string;
  heard: Normalised;
  text: string;
  steps: Step[];
}

export interface ParameterEntry {
  id: string;
  name: string;
  scale: number;
  default: Normalised;
  automatable: boolean;
  reason: string | null;
}
export interface ScaleEntry {
  origin: Normalised;
  steps: number | null;
  set_only: boolean;
  gain: boolean;
  unit: string;
  texts: string[];
  /** Values worth a line on an axis: normalised, and as people write them. */
  marks: [value: Normalised, text: string][];
  engine: number[];
}
export interface Catalogue {
  devices: Record<string, { name: string; role: string; parameters: ParameterEntry[] }>;
  send: ParameterEntry;
  send_prefix: string;
  scales: ScaleEntry[];
  amounts: { scale: string[]; shift: string[]; shift_gain: string[] };
  track_kinds: Record<string, { holds: ClipKind[] }>;
  /** The shortest clip, and the shortest length an envelope may have of its own. */
  shortest_ticks: Ticks;
  drum_sounds: Record<string, string>;
}

export interface ShelfEntry {
  id: number;
  name: string;
  revision: number;
  updated_at: string;
}

export interface Fault {
  code: string;
  path: string;
  message: string;
}
