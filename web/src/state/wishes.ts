import { create } from "zustand";
import type { Ticks } from "../api/types";
import { type PanelName, setView } from "./view";

export type FieldName =
  | "finder"
  | "exact-value"
  | "signature"
  | "marker-name"
  | "track-name"
  | "clip-name"
  | "version-name"
  | "choice-value";

/** Where the keyboard is to go next. Whoever is meant takes it, and takes the wish away. */
interface Wishes {
  point: { envelopeId: string; index: number; windowFrom: Ticks } | null;
  /** A note, by its place in its clip and the start of the repeat it is seen in. */
  note: { clipId: string; index: number; from: Ticks } | null;
  field: FieldName | null;
  /** What was typed already, which takes the place of what stands in the field. */
  typed: string | null;
  region: string | null;
  /** A marker that is to be named. */
  marker: string | null;
  /** A track, and a region whose clip, is being named where its name stands. */
  track: string | null;
  clip: string | null;
  /** Whether the rows are to share the height of the view, once they are on the screen. */
  rows: boolean;
  /** The name of a track. */
  header: string | null;
  /** Where the keyboard goes when that field is left. */
  back: (() => void) | null;
}

export const useWishes = create<Wishes>(() => ({
  point: null,
  note: null,
  field: null,
  typed: null,
  region: null,
  header: null,
  marker: null,
  track: null,
  clip: null,
  rows: false,
  back: null,
}));
export const wishesNow = useWishes.getState;
export const setWishes = useWishes.setState;

/** Shows a panel and puts the keyboard into a field of it, maybe with what was typed already. */
export function openField(
  sheet: PanelName,
  field: FieldName,
  back: (() => void) | null = null,
  typed: string | null = null,
): void {
  setView({ sheet, panelOpen: true });
  setWishes({ field, back, typed });
}

/** Opens the name of a track, and of a region's clip, to be typed where it stands. */
export const nameTrack = (track: string): void =>
  setWishes({ track, field: "track-name", back: () => setWishes({ track: null, header: track }) });
export const nameClip = (clip: string): void =>
  setWishes({ clip, field: "clip-name", back: () => setWishes({ clip: null, region: clip }) });
