import { create } from "zustand";
import type { Catalogue, Corners, Drawing, Preview, Ticks } from "../api/types";
import { EMPTY, type Model, applyParts } from "./model";

export type PanelName = "sum" | "knobs" | "clip" | "song";

export interface Notice {
  tone: "done" | "fault";
  words: string;
  undo?: boolean;
}

/** What a hand is doing to an envelope right now. */
export interface Hand {
  kind: "move" | "add" | "bend";
  envelopeId: string;
  index: number | null;
  /** The window it works in, by its first tick. */
  windowFrom: Ticks;
}

/** What this tab shows of the song; kept for the next visit. */
export interface View {
  pxPerTick: number;
  scrollTick: Ticks;
  unfolded: string[];
  focus: Record<string, string>;
  trackId: string | null;
  grid: Ticks;
  follow: boolean;
}

export interface SongState extends Drawing {
  songId: number | null;
  catalogue: Catalogue | null;
  revision: number;
  undo: string | null;
  redo: string | null;
  model: Model;
  heard: Record<string, Corners>;
  drawn: Record<string, boolean>;
  /** What is heard at the standing playhead, exactly; empty while it runs. */
  exact: Record<string, [value: number, text: string]>;
  preview: Preview | null;
  hand: Hand | null;
  view: View;
  regionId: string | null;
  envelopeId: string | null;
  pointIndex: number | null;
  clipboard: string | null;
  rangeTrial: Model["head"]["range"] | null;
  playhead: Ticks;
  playing: boolean;
  level: number;
  notice: Notice | null;
  sheet: PanelName | null;
}

export const FRESH_VIEW: View = {
  pxPerTick: 0.027,
  scrollTick: 0,
  unfolded: [],
  focus: {},
  trackId: null,
  grid: 240,
  follow: true,
};

const FRESH: SongState = {
  songId: null,
  catalogue: null,
  revision: 0,
  undo: null,
  redo: null,
  model: EMPTY,
  curves: {},
  windows: {},
  passes: {},
  heard: {},
  drawn: {},
  exact: {},
  preview: null,
  hand: null,
  view: FRESH_VIEW,
  regionId: null,
  envelopeId: null,
  pointIndex: null,
  clipboard: null,
  rangeTrial: null,
  playhead: 0,
  playing: false,
  level: 0,
  notice: null,
  sheet: null,
};

export const useSong = create<SongState>(() => FRESH);
export const song = useSong.getState;
export const setSong = useSong.setState;

export const resetSong = () => setSong({ ...FRESH, catalogue: song().catalogue }, true);

export const setView = (change: Partial<View>) => setSong(({ view }) => ({ view: { ...view, ...change } }));

export const tell = (tone: Notice["tone"], words: string, undo = false) => setSong({ notice: { tone, words, undo } });

const viewKey = (id: number) => `satchel-view-${id}`;

/** The view this tab last had of a song, and where its playhead stood; null on a first visit. */
export function loadView(id: number): { view: View; playhead: Ticks } | null {
  try {
    const { playhead = 0, ...view } = JSON.parse(localStorage.getItem(viewKey(id)) ?? "null");
    return { view: { ...FRESH_VIEW, ...view }, playhead };
  } catch {
    return null;
  }
}

let saving = 0;
useSong.subscribe(({ view, songId, playhead, playing }, before) => {
  if (songId === null || playing || (view === before.view && playhead === before.playhead && !before.playing)) return;
  clearTimeout(saving);
  saving = setTimeout(() => localStorage.setItem(viewKey(songId), JSON.stringify({ ...view, playhead })), 300);
});

let shown: { model: Model; preview: Preview | null; result: Model } | null = null;

/** The model with what is being tried laid over it. */
export function shownModel({ model, preview }: Pick<SongState, "model" | "preview">): Model {
  if (!preview || preview.parts.length === 0) return model;
  if (shown?.model !== model || shown.preview !== preview) shown = { model, preview, result: applyParts(model, preview.parts) };
  return shown.result;
}
