import {
  AudioWaveform,
  Backpack,
  BookMarked,
  Columns3,
  Layers,
  LayoutGrid,
  ListMusic,
  type LucideIcon,
  Music,
  PencilRuler,
  Piano,
  Pointer,
  Search,
  Send,
  Sigma,
  SlidersHorizontal,
  Spline,
} from "lucide-react";
import type { PanelName } from "../state/view";

/** Panels and sheets: what they are called, and their icons. */
export const PANELS: Record<PanelName, { name: string; Icon: LucideIcon }> = {
  all: { name: "All", Icon: LayoutGrid },
  sum: { name: "Sum", Icon: Sigma },
  edit: { name: "Edit", Icon: PencilRuler },
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
  "sum",
  "edit",
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
export const NEAR_SHEETS: PanelName[] = ["knobs", "sum", "clip", "mixer"];
export const FAR_SHEETS: PanelName[] = [
  "edit",
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
