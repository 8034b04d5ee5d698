import { create } from "zustand";
import type { Catalogue, Conflict, Corners, Drawing, Preview, Px, Snippet, SongStretch, Ticks } from "../api/types";
import { EMPTY, type Model, applyParts } from "./model";

export type PanelName = "sum" | "edit" | "find" | "knobs" | "clip" | "track" | "song";

/** What a press on an envelope does. */
export const TOOLS = ["points", "range", "lasso", "freehand", "steps", "ramp", "rub"] as const;
export type Tool = (typeof TOOLS)[number];
/** Which envelopes an unfolded track shows: the active one; the others too, safe from the pointer; all to be edited. */
export const SHOWINGS = ["active", "others", "all"] as const;
export type Showing = (typeof SHOWINGS)[number];

export interface Notice {
  tone: "done" | "fault";
  words: string;
  undo?: boolean;
  /** Goes on with what was only announced. */
  go?: () => void;
}

/** What a hand is doing to an envelope right now. */
export interface Hand {
  kind: "move" | "add" | "bend" | "draw";
  envelopeId: string;
  index: number | null;
  /** Words beside the hand, where the touched point has none. */
  words?: string;
  /** What is being drawn or lassoed, in pixels of the strip. */
  trail?: [Px, Px][];
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
  /** Ticks; 0 is off. With `gridAuto` it follows the zoom. */
  grid: Ticks;
  gridAuto: boolean;
  push: boolean;
  showing: Showing;
  /** What freehand is thinned to, as a share of the travel. */
  tolerance: number;
  /** Parameters touched lately, the last one first. */
  lately: string[];
  follow: boolean;
  /** Lanes shown under the one in focus, and lanes that stay in view while their track is folded: addresses by track. */
  shown: Record<string, string[]>;
  pinned: Record<string, string[]>;
  /** Whether the sum is told at the pointer rather than at the playhead. */
  sumAtPointer: boolean;
}

export interface SongState extends Drawing {
  songId: number | null;
  catalogue: Catalogue | null;
  revision: number;
  undo: string | null;
  redo: string | null;
  model: Model;
  heard: Record<string, Corners>;
  conflicts: Record<string, Conflict[]>;
  silent: string[];
  drawn: Record<string, boolean>;
  /** What is heard at the standing playhead, exactly; empty while it runs. */
  exact: Record<string, [value: number, text: string]>;
  preview: Preview | null;
  hand: Hand | null;
  view: View;
  /** The region at hand, and all that are chosen with it. */
  regionId: string | null;
  regionIds: string[];
  /** Where a hand that carries regions is on the screen, and why it may not drop them there. */
  carry: { x: Px; y: Px; fault: string | null } | null;
  /** A loop being drawn about regions, on the screen. */
  loop: { left: Px; top: Px; width: Px; height: Px } | null;
  /** Whether presses on the table gather regions; for fingers, whose drags else scroll. */
  gather: boolean;
  /** The song tick under the pointer, over the strips of a track. */
  pointer: Ticks | null;
  envelopeId: string | null;
  /** Places of the chosen points of that envelope, in order. */
  chosen: number[];
  /** A stretch of that envelope, in its own ticks. */
  span: [from: Ticks, to: Ticks] | null;
  /** The window the hand works in, by its first tick. */
  windowFrom: Ticks;
  tool: Tool;
  /** Regions that were copied, a stretch of a move, or a stretch of the song. */
  clipboard: { regions: string[] } | { snippet: Snippet } | { stretch: SongStretch } | null;
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
  gridAuto: false,
  push: false,
  showing: "others",
  tolerance: 0.01,
  lately: [],
  follow: true,
  shown: {},
  pinned: {},
  sumAtPointer: false,
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
  marks: {},
  uneven: {},
  meetings: {},
  heard: {},
  conflicts: {},
  silent: [],
  drawn: {},
  exact: {},
  preview: null,
  hand: null,
  view: FRESH_VIEW,
  regionId: null,
  regionIds: [],
  carry: null,
  loop: null,
  gather: false,
  pointer: null,
  envelopeId: null,
  chosen: [],
  span: null,
  windowFrom: 0,
  tool: "points",
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

/** Shows or pins a lane of a track, or no longer. */
export const setLane = (list: "shown" | "pinned", trackId: string, address: string, on: boolean): void => {
  const now = song().view[list];
  const rest = (now[trackId] ?? []).filter((other) => other !== address);
  setView({ [list]: { ...now, [trackId]: on ? [...rest, address] : rest } });
};

/** Turns to the next way of showing envelopes. */
export const turnShowing = (): void => {
  const { showing } = song().view;
  setView({ showing: SHOWINGS[(SHOWINGS.indexOf(showing) + 1) % SHOWINGS.length] });
};

/** Chooses regions; the first of the list given is the one at hand. None clears the choice. */
export const chooseRegions = (ids: string[]): void => setSong({ regionId: ids[0] ?? null, regionIds: ids });

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
