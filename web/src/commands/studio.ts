import { Eraser, LassoSelect, MoonStar, MousePointer2, Pencil, Slash, SquareDashed, StepForward } from "lucide-react";
import { allOff } from "../gestures/playIn";
import { toggleRecording } from "../gestures/recording";
import { markPlace } from "../gestures/songTime";
import { player } from "../sound/player";
import { edit } from "../state/edits";
import { toggleFold } from "../state/folding";
import { hearingNow } from "../state/hearing";
import { showKeys } from "../state/keyMap";
import { toggleRest } from "../state/listening";
import { toggleArm } from "../state/performing";
import { playInNow, setPlayIn } from "../state/playIn";
import { faultsSaid } from "../state/queue";
import { fit, zoomAtHand } from "../state/scrolling";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { type Showing, setView, type Tool, turnNotes, turnShowing, type View, viewNow } from "../state/view";
import { openField } from "../state/wishes";
import type { Command } from "./command";

const ZOOM = 1.4;

export const SHOWING_WORDS: Record<Showing, string> = {
  active: "only the one in hand",
  others: "others faintly",
  all: "all to edit",
};

const always = (): null => null;

const markers = () => song().model.head.markers ?? [];
const markerAfter = () => markers().find(({ tick }) => tick > transportNow().playhead);
const markerBefore = () => markers().findLast(({ tick }) => tick < transportNow().playhead);
const NO_MARKER = "There is no marker on that side; the key for marking sets one at the playhead.";

const track = () => viewNow().trackId;
const noTrack = () => (track() ? null : "Choose a track first: press its name.");
const knob = () => viewNow().focus[track() ?? ""];

/** Turns between the song as it stands and the version heard last. */
function hearOther(): void {
  const { version, last } = hearingNow();
  if (version) void player.hear(null);
  else if (last) void faultsSaid(() => player.hear(last));
}

/** Every note ends, those a hand holds too. */
export function silence(): void {
  player.hush();
  allOff();
}

/** Puts something at the foot, or the knobs again; on a phone, it is a sheet. */
function turnFoot(foot: "mixer" | "keys"): void {
  setView({ foot: viewNow().foot === foot ? "knobs" : foot });
}

const tool = (id: Tool, words: string, what: string, Icon: Command["Icon"]): Command & { tool: Tool } => ({
  id: `tool-${id}`,
  tool: id,
  words,
  what,
  Icon,
  key: id,
  on: () => viewNow().tool === id,
  why: always,
  run: () => setView({ tool: id }),
});

/** What a press on an envelope does from now on. */
export const TOOL_COMMANDS = [
  tool("points", "Points", "Add, move and bend; drag over empty ground to loop around points", MousePointer2),
  tool("range", "Span", "Drag over time to choose a stretch", SquareDashed),
  tool("lasso", "Lasso", "Draw a loop around points", LassoSelect),
  tool("freehand", "Freehand", "Draw as the hand goes", Pencil),
  tool("steps", "Steps", "Draw held steps on the grid", StepForward),
  tool("ramp", "Ramp", "Draw a straight line from press to release", Slash),
  tool("rub", "Rub out", "Clear a stretch", Eraser),
];

const REST: Command = {
  id: "rest-all",
  words: "Rest",
  wordsNow: () => (song().resting.length > 0 ? "Bring moves back" : "Rest"),
  what: "Hear the song without its moves, those of the tempo aside; the song stays as it is",
  whatNow: () => (song().resting.length > 0 ? "All that rest are heard again" : REST.what),
  Icon: MoonStar,
  key: "rest-all",
  on: () => song().resting.length > 0,
  why: always,
  run: () => toggleRest("song"),
};

/** Playing, and places of the song. */
export const PLAYING_COMMANDS: Command[] = [
  {
    id: "play",
    words: "Play",
    wordsNow: () => (transportNow().playing ? "Stop" : "Play"),
    what: "From the playhead",
    held: "Space",
    why: always,
    run: () => player.toggle(),
  },
  {
    id: "start",
    words: "To the start",
    what: "The playhead goes to bar 1",
    held: "Home",
    why: always,
    run: () => player.seek(0),
  },
  {
    id: "record",
    words: "Record",
    what: "What hands do is written; once more, it stops",
    key: "record",
    why: always,
    run: () => toggleRecording(),
  },
  {
    id: "repeat",
    words: "Repeat the range",
    what: "Play it over and over, or no longer",
    key: "repeat",
    on: () => song().model.head.range.on,
    why: always,
    run: () => edit("set_range", () => ({ on: !song().model.head.range.on })),
  },
  {
    id: "follow",
    words: "Follow the playhead",
    what: "The view goes along again after a hand scrolled it",
    key: "follow",
    why: always,
    run: () => player.follow(),
  },
  {
    id: "mark",
    words: "Mark this place",
    what: "A marker with a name, at the playhead",
    key: "mark",
    why: always,
    run: markPlace,
  },
  {
    id: "next-mark",
    words: "To the next marker",
    what: "The playhead goes there",
    key: "next-mark",
    why: () => (markerAfter() ? null : NO_MARKER),
    run: () => player.seek(markerAfter()?.tick ?? 0),
  },
  {
    id: "last-mark",
    words: "To the marker before",
    what: "The playhead goes there",
    key: "last-mark",
    why: () => (markerBefore() ? null : NO_MARKER),
    run: () => player.seek(markerBefore()?.tick ?? 0),
  },
  {
    id: "other",
    words: "Hear the other version",
    what: "The version heard last, or the song as it stands",
    key: "other",
    why: () => (hearingNow().version || hearingNow().last ? null : "Hear a version first: Versions, at the right."),
    run: hearOther,
  },
  REST,
  {
    id: "hush",
    words: "Silence",
    what: "Stop every note at once",
    key: "hush",
    why: always,
    run: silence,
  },
  {
    id: "arm",
    words: "Arm the knob in focus",
    what: "What hands do with it is written while it records",
    key: "arm",
    why: () => (knob() ? null : "Touch a knob first."),
    run: () => toggleArm("knobs", knob()),
  },
  {
    id: "type",
    words: "Type to play",
    what: "The computer's keys play notes, or no longer",
    key: "type",
    on: () => playInNow().typing,
    why: always,
    run: () => setPlayIn({ typing: !playInNow().typing }),
  },
];

const FIT: Command = {
  id: "fit",
  words: "Fit",
  what: "The chosen span, or the range, into view",
  key: "whole",
  why: always,
  run: () => fit(),
};

const SHOWING: Command = {
  id: "hide",
  words: "Show more or fewer envelopes",
  what: "Only the one in hand, others faintly, all to edit",
  whatNow: () => `Now ${SHOWING_WORDS[viewNow().showing]}`,
  key: "hide",
  why: always,
  run: turnShowing,
};

const PUSH: Command = {
  id: "push",
  words: "Push",
  wordsNow: () => (viewNow().push ? "Push no more" : "Push"),
  what: "Moving or deleting in time carries all later points along",
  on: () => viewNow().push,
  why: always,
  run: () => setView({ push: !viewNow().push }),
};

const way = (id: keyof View["ways"], words: string, what: string): Command => ({
  id: `way-${id}`,
  words,
  wordsNow: () => (viewNow().ways[id] ? `${words}: no more` : words),
  what,
  on: () => viewNow().ways[id],
  why: always,
  run: () => setView({ ways: { ...viewNow().ways, [id]: !viewNow().ways[id] } }),
});

/** How hands act on what they press; fingers have no keys to hold for it. */
export const WAY_COMMANDS: Command[] = [
  FIT,
  PUSH,
  way("fine", "Drag finely", "A tenth as far as the hand goes"),
  way("free", "Drag off the grid", "To any tick"),
  way("whole", "Take whole segments", "A press on a line takes both its ends"),
  SHOWING,
];

/** What is seen, and where. */
export const VIEW_COMMANDS: Command[] = [
  {
    id: "unfold",
    words: "Unfold the track",
    what: "Or fold it again",
    key: "unfold",
    why: noTrack,
    run: () => toggleFold(track() ?? ""),
  },
  {
    id: "notes",
    words: "Notes or moves",
    what: "What the strip of the track shows",
    key: "notes",
    why: noTrack,
    run: () => turnNotes(track() ?? ""),
  },
  SHOWING,
  FIT,
  {
    id: "zoom-in",
    words: "Zoom in",
    what: "About what is chosen, else the playhead",
    key: "in",
    why: always,
    run: () => zoomAtHand(ZOOM),
  },
  {
    id: "zoom-out",
    words: "Zoom out",
    what: "About what is chosen, else the playhead",
    key: "out",
    why: always,
    run: () => zoomAtHand(1 / ZOOM),
  },
  {
    id: "find",
    words: "Find a knob or a command",
    what: "By a part of its name",
    key: "find",
    why: always,
    run: () => openField("find", "finder"),
  },
  {
    id: "panel",
    words: "Panel",
    what: "Open it at the right, or close it",
    key: "panel",
    on: () => viewNow().panelOpen,
    why: always,
    run: () => setView({ panelOpen: !viewNow().panelOpen }),
  },
  {
    id: "mixer",
    words: "Mixer",
    what: "At the foot, in place of the knobs, or no longer",
    key: "mixer",
    on: () => viewNow().foot === "mixer",
    why: always,
    run: () => turnFoot("mixer"),
  },
  {
    id: "keys-to-play",
    words: "Keys to play",
    what: "At the foot, in place of the knobs, or no longer",
    key: "play",
    on: () => viewNow().foot === "keys",
    why: always,
    run: () => turnFoot("keys"),
  },
  { id: "keys", words: "Keys", what: "All of them, each to be changed", key: "keys", why: always, run: showKeys },
];

export const STUDIO_COMMANDS: Command[] = [
  ...TOOL_COMMANDS,
  ...PLAYING_COMMANDS,
  ...VIEW_COMMANDS,
  ...WAY_COMMANDS.filter((command) => !VIEW_COMMANDS.includes(command)),
];
