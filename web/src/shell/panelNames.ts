import {
  AudioWaveform,
  Backpack,
  BookMarked,
  Columns3,
  Grab,
  Layers,
  LayoutGrid,
  ListMusic,
  type LucideIcon,
  Music,
  Piano,
  Pointer,
  Search,
  Send,
  SlidersHorizontal,
  Spline,
} from "lucide-react";
import type { PanelName } from "../state/view";

/** Panels and sheets: what they are called, and their icons. */
export const PANELS: Record<PanelName, { name: string; Icon: LucideIcon }> = {
  all: { name: "All", Icon: LayoutGrid },
  "at-hand": { name: "At hand", Icon: Grab },
  find: { name: "Finder", Icon: Search },
  clip: { name: "Clip", Icon: AudioWaveform },
  track: { name: "Track", Icon: ListMusic },
  knobs: { name: "Knobs", Icon: SlidersHorizontal },
  keys: { name: "Keys", Icon: Piano },
  mixer: { name: "Mixer", Icon: Columns3 },
  song: { name: "Song", Icon: Music },
  hands: { name: "Hands", Icon: Pointer },
  ends: { name: "Ends", Icon: Spline },
  satchel: { name: "Satchel", Icon: Backpack },
  hand: { name: "Hand over", Icon: Send },
  versions: { name: "Versions", Icon: BookMarked },
  takes: { name: "Takes", Icon: Layers },
};

export const DESK_PANELS: PanelName[] = [
  "at-hand",
  "satchel",
  "find",
  "clip",
  "track",
  "takes",
  "ends",
  "versions",
  "hand",
];
/** The sheets of a phone that stand in its bottom bar, and those behind *All*. */
export const NEAR_SHEETS: PanelName[] = ["knobs", "at-hand", "clip", "mixer"];
export const FAR_SHEETS: PanelName[] = [
  "track",
  "satchel",
  "find",
  "keys",
  "hands",
  "takes",
  "ends",
  "versions",
  "hand",
  "song",
];
