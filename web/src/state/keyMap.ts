import { create } from "zustand";

/**
 * What a key may do. The scheme is our own: the bottom row holds the tools as they stand, the rest goes by our words.
 */
export interface KeyDeed {
  id: string;
  words: string;
  group: "Tools" | "Playing" | "View" | "Points" | "Regions";
  /** A key as it is typed, with "shift+" before a letter where that is held. */
  key: string;
}

export const KEY_DEEDS = [
  { id: "points", words: "Points", group: "Tools", key: "z" },
  { id: "range", words: "Span", group: "Tools", key: "x" },
  { id: "lasso", words: "Lasso", group: "Tools", key: "c" },
  { id: "freehand", words: "Freehand", group: "Tools", key: "v" },
  { id: "steps", words: "Steps", group: "Tools", key: "b" },
  { id: "ramp", words: "Ramp", group: "Tools", key: "n" },
  { id: "rub", words: "Rub out", group: "Tools", key: "m" },
  { id: "repeat", words: "Repeat the range, or not", group: "Playing", key: "r" },
  { id: "follow", words: "Follow the playhead again", group: "Playing", key: "f" },
  { id: "mark", words: "Mark the playhead's place", group: "Playing", key: "j" },
  { id: "next-mark", words: "To the next marker", group: "Playing", key: "." },
  { id: "last-mark", words: "To the marker before", group: "Playing", key: "," },
  { id: "other", words: "Hear the version heard last, or the song now", group: "Playing", key: "shift+h" },
  { id: "hush", words: "Silence: stop every note at once", group: "Playing", key: "g" },
  { id: "record", words: "Record, or stop recording", group: "Playing", key: "shift+r" },
  { id: "arm", words: "Arm the knob in focus, or no longer", group: "Playing", key: "shift+a" },
  { id: "type", words: "The computer's keys play notes", group: "Playing", key: "shift+k" },
  { id: "unfold", words: "Unfold or fold the track", group: "View", key: "u" },
  { id: "hide", words: "Hide or show other envelopes", group: "View", key: "h" },
  { id: "whole", words: "Whole span or range into view", group: "View", key: "w" },
  { id: "in", words: "Zoom in", group: "View", key: "+" },
  { id: "out", words: "Zoom out", group: "View", key: "-" },
  { id: "find", words: "Find a knob", group: "View", key: "/" },
  { id: "notes", words: "Notes or moves of the track", group: "View", key: "d" },
  { id: "panel", words: "Open or close the panel", group: "View", key: "i" },
  { id: "mixer", words: "Mixer or knobs at the foot", group: "View", key: "y" },
  { id: "play", words: "Keys to play at the foot", group: "View", key: "shift+y" },
  { id: "keys", words: "This list", group: "View", key: "?" },
  { id: "put", words: "Put a point at the playhead", group: "Points", key: "p" },
  { id: "enter", words: "Go to the points of the envelope", group: "Points", key: "e" },
  { id: "layer", words: "Next layer of the parameter", group: "Points", key: "k" },
  { id: "again", words: "Again, right after itself", group: "Regions", key: "a" },
  { id: "split", words: "Split at the playhead", group: "Regions", key: "s" },
  { id: "split-here", words: "Split at the pointer", group: "Regions", key: "shift+s" },
  { id: "together", words: "Join with the one after it", group: "Regions", key: "t" },
  { id: "one-clip", words: "Make one clip of what they play", group: "Regions", key: "shift+t" },
  { id: "own", words: "Make its clip its own", group: "Regions", key: "o" },
  { id: "quiet", words: "Mute or unmute", group: "Regions", key: "q" },
  { id: "lay-out", words: "Lay its moves out on the track", group: "Regions", key: "l" },
] as const satisfies readonly KeyDeed[];

export type DeedId = (typeof KEY_DEEDS)[number]["id"];
const IDS = KEY_DEEDS.map(({ id }) => id);

interface KeyMap {
  /** Keys in place of the given ones, by deed. */
  changed: Partial<Record<DeedId, string>>;
  /** Whether keys do anything by themselves, without Ctrl or Command. */
  single: boolean;
}

const STORED = "satchel-keys";
const FRESH: KeyMap = { changed: {}, single: true };

function stored(): KeyMap {
  try {
    return { ...FRESH, ...JSON.parse(localStorage.getItem(STORED) ?? "{}") };
  } catch {
    return FRESH;
  }
}

export const useKeyMap = create<KeyMap>(stored);
useKeyMap.subscribe((map) => localStorage.setItem(STORED, JSON.stringify(map)));

export const keyOf = (id: DeedId, { changed }: KeyMap = useKeyMap.getState()): string =>
  changed[id] ?? KEY_DEEDS.find((deed) => deed.id === id)?.key ?? "";

/** A key as people read it. */
export const keyText = (key: string): string =>
  key.replace("shift+", "Shift ").replace(/[a-z]$/, (letter) => letter.toUpperCase());

/** The key of a deed, to be put behind what its button says. */
export const keyHint = (id: DeedId): string => `(${keyText(keyOf(id))})`;

/** A key as the map writes it; null for keys that mean something everywhere. */
export function written({ key, shiftKey }: { key: string; shiftKey: boolean }): string | null {
  if (key.length !== 1 || key === " ") return null;
  const lower = key.toLowerCase();
  return shiftKey && lower !== key.toUpperCase() ? `shift+${lower}` : lower;
}

/** What a key does by itself. */
export function deedOf(event: KeyboardEvent): DeedId | undefined {
  const map = useKeyMap.getState();
  const key = written(event);
  if (!map.single || key === null) return undefined;
  return IDS.find((id) => keyOf(id, map) === key || (id === "in" && key === "=" && keyOf("in", map) === "+"));
}

/** Gives a deed another key. Whoever had that key gets the old one. */
export function changeKey(id: DeedId, key: string): void {
  const map = useKeyMap.getState();
  const holder = IDS.find((other) => other !== id && keyOf(other, map) === key);
  useKeyMap.setState({ changed: { ...map.changed, [id]: key, ...(holder ? { [holder]: keyOf(id, map) } : {}) } });
}

export const resetKeys = (): void => useKeyMap.setState({ changed: {} });
export const switchSingleKeys = (single: boolean): void => useKeyMap.setState({ single });
