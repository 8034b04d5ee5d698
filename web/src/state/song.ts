import { create } from "zustand";
import type { Catalogue, Conflict, Corners, Drawing, Preview } from "../api/types";
import { applyParts, EMPTY, type Model } from "./model";

/** The song as the server tells it, and what is being tried. */
export interface SongState extends Drawing {
  songId: number | null;
  catalogue: Catalogue | null;
  revision: number;
  undo: string | null;
  redo: string | null;
  model: Model;
  heard: Record<string, Corners>;
  conflicts: Record<string, Conflict[]>;
  /** Tracks muted and soloed for listening, and those that are not heard for it, by id. */
  muted: string[];
  soloed: string[];
  silent: string[];
  /** Whose moves rest for listening, and the envelopes that do. */
  resting: string[];
  rested: string[];
  drawn: Record<string, boolean>;
  /** What is heard at the playhead at rest, exactly; empty while it runs. */
  exact: Record<string, [value: number, text: string]>;
  preview: Preview | null;
}

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
  muted: [],
  soloed: [],
  silent: [],
  resting: [],
  rested: [],
  drawn: {},
  exact: {},
  preview: null,
};

export const useSong = create<SongState>(() => FRESH);
export const song = useSong.getState;
export const setSong = useSong.setState;

/** Lets go of the song; the catalogue is the same for all songs. */
export const resetSong = (): void => setSong({ ...FRESH, catalogue: song().catalogue }, true);

let shown: { model: Model; preview: Preview | null; result: Model } | null = null;

/** The model with what is being tried laid over it. */
export function shownModel({ model, preview }: Pick<SongState, "model" | "preview">): Model {
  if (!preview || preview.parts.length === 0) return model;
  if (shown?.model !== model || shown.preview !== preview)
    shown = { model, preview, result: applyParts(model, preview.parts) };
  return shown.result;
}
