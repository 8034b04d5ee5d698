import {
  ClipboardPaste,
  Copy,
  CopyPlus,
  Crop,
  Eraser,
  Layers,
  Merge,
  MoonStar,
  PanelRight,
  Scissors,
  Split,
  TextCursorInput,
  Trash2,
  TrendingDown,
  TrendingUp,
  VolumeX,
} from "lucide-react";
import { chosenRegions, endOf, trackIdOf } from "../gestures/choosing";
import {
  copy,
  duplicate,
  fadeEdge,
  join,
  layOut,
  mute,
  oneClip,
  paste,
  remove,
  separate,
  splitAtPlayhead,
  splitAtPointer,
} from "../gestures/regions";
import { carriedTo } from "../state/carried";
import { chosenNow } from "../state/choice";
import { editAndTell } from "../state/edits";
import { toggleRest } from "../state/listening";
import { lookup } from "../state/lookup";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { setView } from "../state/view";
import { nameClip } from "../state/wishes";
import type { Command } from "./command";

const NONE = "Choose a region first: press its name.";
const any = (): string | null => (chosenRegions().length > 0 ? null : NONE);

const shared = () => chosenRegions().some(({ clip_id }) => (lookup(song().model).sharers[clip_id] ?? 0) > 1);
const several = () => chosenRegions().length > 1;

/** Of the chosen regions the first that another goes on from: joined to it, both are one. */
const joinable = () =>
  [...chosenRegions()]
    .sort((a, b) => a.start_tick - b.start_tick)
    .find((region) => {
      const row = lookup(song().model).regions[`track/${trackIdOf(region)}`] ?? [];
      return row.some(({ start_tick }) => start_tick === endOf(region));
    });

const underPlayhead = () => {
  const { playhead } = transportNow();
  return chosenRegions().some((region) => playhead > region.start_tick && playhead < endOf(region));
};

const carriers = () =>
  chosenRegions().some(({ clip_id }) => song().model.clips[clip_id].kind === "carrier")
    ? "A carrier has no sound of its own."
    : null;

const moves = () => clipsAtHand().length > 0;

/** The clips of the chosen regions that have moves. */
const clipsAtHand = () =>
  [...new Set(chosenRegions().map(({ clip_id }) => clip_id))].filter(
    (id) => (lookup(song().model).envelopes[`clip/${id}`] ?? []).length > 0,
  );

const movesOf = (clipIds: string[]) =>
  clipIds.flatMap((id) => (lookup(song().model).envelopes[`clip/${id}`] ?? []).map((envelope) => envelope.id));

const copied = () => {
  const { clipboard } = chosenNow();
  return (clipboard !== null && "regions" in clipboard) || carriedTo(song().songId) !== null;
};

/** What can be done to the chosen regions. */
export const REGION_COMMANDS: Command[] = [
  {
    id: "duplicate",
    words: "Duplicate",
    what: "Once more, right after itself",
    Icon: CopyPlus,
    key: "again",
    common: true,
    why: any,
    run: duplicate,
  },
  {
    id: "copy",
    words: "Copy",
    what: "To be pasted here or in another song",
    Icon: Copy,
    held: "Ctrl C",
    why: any,
    run: copy,
  },
  {
    id: "paste",
    words: "Paste",
    what: "What was copied, at the playhead",
    Icon: ClipboardPaste,
    held: "Ctrl V",
    why: () => (copied() ? null : "No region has been copied yet."),
    run: paste,
  },
  {
    id: "split",
    words: "Split",
    what: "Cut in two where the playhead stands",
    Icon: Scissors,
    key: "split",
    common: true,
    placed: true,
    why: () => any() ?? (underPlayhead() ? null : "The playhead stands in none of them."),
    run: () => chosenRegions().forEach(splitAtPlayhead),
  },
  {
    id: "split-here",
    words: "Split at the pointer",
    what: "Cut in two under the pointer",
    Icon: Scissors,
    key: "split-here",
    placed: true,
    why: () => null,
    run: splitAtPointer,
  },
  {
    id: "join",
    words: "Join",
    what: "With the region that goes on with it",
    Icon: Merge,
    key: "together",
    common: true,
    why: () => any() ?? (joinable() ? null : "No region goes on where this one ends."),
    run: () => {
      const region = joinable();
      if (region) join(region);
    },
  },
  {
    id: "one-clip",
    words: "One clip",
    wordsNow: () => (several() ? "One clip" : "Crop"),
    what: "A clip of just what is played there, moves and all",
    Icon: Crop,
    key: "one-clip",
    why: any,
    run: oneClip,
  },
  {
    id: "own",
    words: "Separate",
    what: "A clip of its own, which changes no other region",
    Icon: Split,
    key: "own",
    common: true,
    why: () => any() ?? (shared() ? null : "No other region plays this clip."),
    run: () => separate(),
  },
  {
    id: "each",
    words: "Each apart",
    what: "A clip of its own for each",
    Icon: Split,
    why: () => any() ?? (several() ? (shared() ? null : "They share no clip.") : "Choose several regions."),
    run: () => separate(true),
  },
  {
    id: "mute",
    words: "Mute",
    what: "Neither material nor moves are heard",
    Icon: VolumeX,
    key: "quiet",
    common: true,
    on: () => chosenRegions().every((region) => region.muted),
    why: any,
    run: mute,
  },
  {
    id: "rest",
    words: "Rest its moves",
    what: "Heard without them for a listen; the song stays as it is",
    Icon: MoonStar,
    key: "rest",
    on: () => clipsAtHand().length > 0 && clipsAtHand().every((id) => song().resting.includes(`clip/${id}`)),
    why: () => any() ?? (moves() ? null : "There are no moves in it."),
    run: async () => {
      for (const id of clipsAtHand()) await toggleRest(`clip/${id}`);
    },
  },
  {
    id: "fade-in",
    words: "Fade in",
    what: "Over its first bar; a drag from its upper corner says how long",
    Icon: TrendingUp,
    why: () => any() ?? carriers(),
    run: () => fadeEdge("in"),
  },
  {
    id: "fade-out",
    words: "Fade out",
    what: "Over its last bar; a drag from its upper corner says how long",
    Icon: TrendingDown,
    why: () => any() ?? carriers(),
    run: () => fadeEdge("out"),
  },
  {
    id: "lay-out",
    words: "Lay out",
    what: "Turn the clip moves into points of the track lanes; what is heard stays",
    Icon: Layers,
    key: "lay-out",
    why: () => any() ?? (moves() ? null : "There are no moves in it."),
    run: layOut,
  },
  {
    id: "name",
    words: "Name",
    what: "Of its clip, in every region that plays it",
    Icon: TextCursorInput,
    held: "F2",
    why: any,
    run: () => nameClip(chosenRegions()[0].id),
  },
  {
    id: "clip",
    words: "Clip …",
    what: "Its name, length, hue and moves, in the panel",
    Icon: PanelRight,
    why: any,
    run: () => setView({ sheet: "clip", panelOpen: true }),
  },
  {
    id: "bare",
    words: "Remove its moves",
    what: "All of them, as one step; its material stays",
    Icon: Eraser,
    removes: true,
    why: () => any() ?? (moves() ? null : "There are no moves in it."),
    run: () => editAndTell("remove_envelopes", { envelope_ids: movesOf(clipsAtHand()) }),
  },
  {
    id: "remove",
    words: "Remove",
    what: "The clip stays",
    Icon: Trash2,
    held: "Delete",
    removes: true,
    why: any,
    run: remove,
  },
];
