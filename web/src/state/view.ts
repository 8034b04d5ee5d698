import { create } from "zustand";
import type { EnvelopePart, Ticks } from "../api/types";

/** What may stand at the foot. */
export const FEET = ["knobs", "mixer", "keys", "hands"] as const;
export type Foot = (typeof FEET)[number];

export type PanelName =
  | "all"
  | "mixer"
  | "keys"
  | "at-hand"
  | "find"
  | "knobs"
  | "clip"
  | "track"
  | "song"
  | "takes"
  | "satchel"
  | "ends"
  | "hand"
  | "versions"
  | "hands";

/** What a press on an envelope does. */
export const TOOLS = ["points", "range", "lasso", "freehand", "steps", "ramp", "rub"] as const;
export type Tool = (typeof TOOLS)[number];
/** Which envelopes an unfolded track shows: the active one; the others too, safe from the pointer; all to be edited. */
export const SHOWINGS = ["active", "others", "all"] as const;
export type Showing = (typeof SHOWINGS)[number];

/** What this tab shows of a song, kept for the next visit. */
export interface KeptView {
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
  /**
   * Lanes shown under the one in focus, and lanes that stay in view while their track is folded: addresses by track.
   */
  shown: Record<string, string[]>;
  pinned: Record<string, string[]>;
  /** Whether the sum is told at the pointer rather than at the playhead. */
  sumAtPointer: boolean;
  /** How much taller than usual the rows of tracks are, unfolded. */
  tall: Record<string, number>;
  /** The layer in hand where envelopes of one parameter lie over each other, by track and level. */
  layer: Record<string, EnvelopePart["role"]>;
  /** The part of a kit that its card shows, by the kit's path; none for the whole. */
  parts: Record<string, string>;
  /** Of each chain the devices whose knobs are seen at the foot; until one was opened or touched, the first. */
  openDevices: Record<string, string[]>;
  /** Unfolded tracks of notes that show their notes rather than their moves. */
  notes: Record<string, boolean>;
  foot: Foot;
  /** Which parts of panels are unfolded. */
  folds: Record<string, boolean>;
  /** Whether the panel at the right is open; closed, the song takes its place. */
  panelOpen: boolean;
  /** The parameter that the panel *At hand* stays with, whatever is chosen; null to go with the choice. */
  pinnedAtHand: string | null;
}

export interface View extends KeptView {
  /** The panel in view, or the sheet on a phone; null is none. */
  sheet: PanelName | null;
  tool: Tool;
  /** What a finger means, which has no keys to hold: finely, off the grid, whole segments. */
  ways: { fine: boolean; free: boolean; whole: boolean };
  /** Whether presses on the table gather regions; for fingers, whose drags else scroll. */
  gather: boolean;
}

export const FRESH_VIEW: KeptView = {
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
  tall: {},
  layer: {},
  parts: {},
  openDevices: {},
  notes: {},
  foot: "knobs",
  folds: {},
  panelOpen: true,
  pinnedAtHand: null,
};

const FRESH: View = {
  ...FRESH_VIEW,
  sheet: null,
  tool: "points",
  ways: { fine: false, free: false, whole: false },
  gather: false,
};

export const useView = create<View>(() => FRESH);
export const viewNow = useView.getState;
export const setView = useView.setState;

export const resetView = (): void => setView(FRESH, true);

/** Shows or pins a lane of a track, or no longer. */
export const setLane = (list: "shown" | "pinned", trackId: string, address: string, on: boolean): void => {
  const now = viewNow()[list];
  const rest = (now[trackId] ?? []).filter((other) => other !== address);
  setView({ [list]: { ...now, [trackId]: on ? [...rest, address] : rest } });
};

/** Turns to the next way of showing envelopes. */
export const turnShowing = (): void => {
  const { showing } = viewNow();
  setView({ showing: SHOWINGS[(SHOWINGS.indexOf(showing) + 1) % SHOWINGS.length] });
};

/** Turns an unfolded track of notes between its notes and its moves. */
export const turnNotes = (trackId: string): void =>
  setView({ notes: { ...viewNow().notes, [trackId]: !viewNow().notes[trackId] } });

/** The devices of a chain that are open. */
export const openOf = (chain: string, devices: { id: string }[], { openDevices } = viewNow()): string[] =>
  openDevices[chain] ?? devices.slice(0, 1).map(({ id }) => id);

/** Opens a device of a chain at the foot, or closes it, beside those of the chain that are open. */
export function openDevice(chain: string, deviceId: string, on: boolean, opened: string[]): void {
  const others = opened.filter((id) => id !== deviceId);
  setView({ openDevices: { ...viewNow().openDevices, [chain]: on ? [...others, deviceId] : others } });
}
