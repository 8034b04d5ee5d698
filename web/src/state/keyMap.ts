import { create } from "zustand";

/**
 * The keys as they are given, by what they act on; what each does stands in the table of commands. The scheme is our
 * own: the bottom row holds the tools as they stand, the rest goes by our words. "shift+" goes before a letter where
 * that is held.
 */
export const KEYS = {
  studio: {
    points: "z",
    range: "x",
    lasso: "c",
    freehand: "v",
    steps: "b",
    ramp: "n",
    rub: "m",
    repeat: "r",
    follow: "f",
    mark: "j",
    "next-mark": ".",
    "last-mark": ",",
    other: "shift+h",
    hush: "g",
    "rest-all": "shift+g",
    record: "shift+r",
    arm: "shift+a",
    type: "shift+k",
    unfold: "u",
    hide: "h",
    whole: "w",
    in: "+",
    out: "-",
    find: "/",
    notes: "d",
    panel: "i",
    mixer: "y",
    play: "shift+y",
    keys: "?",
  },
  points: { put: "p", enter: "e", layer: "k" },
  regions: {
    again: "a",
    split: "s",
    "split-here": "shift+s",
    together: "t",
    "one-clip": "shift+t",
    own: "o",
    quiet: "q",
    rest: "shift+q",
    "lay-out": "l",
  },
} as const;

type Keys = typeof KEYS;
export type KeyId = { [Of in keyof Keys]: keyof Keys[Of] }[keyof Keys];

const GIVEN: Record<KeyId, string> = { ...KEYS.studio, ...KEYS.points, ...KEYS.regions };
const IDS = Object.keys(GIVEN) as KeyId[];

interface KeyMap {
  /** Keys in place of the given ones. */
  changed: Partial<Record<KeyId, string>>;
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

export const keyOf = (id: KeyId, { changed }: KeyMap = useKeyMap.getState()): string => changed[id] ?? GIVEN[id];

/** A key as people read it. */
export const keyText = (key: string): string =>
  key.replace("shift+", "Shift ").replace(/[a-z]$/, (letter) => letter.toUpperCase());

/** The key of a command, to be put after what its button says. */
export const keyHint = (id: KeyId): string => `(${keyText(keyOf(id))})`;

/** A key as the map writes it; null for keys that mean something everywhere. */
export function written({ key, shiftKey }: { key: string; shiftKey: boolean }): string | null {
  if (key.length !== 1 || key === " ") return null;
  const lower = key.toLowerCase();
  return shiftKey && lower !== key.toUpperCase() ? `shift+${lower}` : lower;
}

/** What a key does by itself. */
export function commandOf(event: KeyboardEvent): KeyId | undefined {
  const map = useKeyMap.getState();
  const key = written(event);
  if (!map.single || key === null) return undefined;
  return IDS.find((id) => keyOf(id, map) === key || (id === "in" && key === "=" && keyOf("in", map) === "+"));
}

/** Gives a command another key. Whatever had that key gets the old one. */
export function changeKey(id: KeyId, key: string): void {
  const map = useKeyMap.getState();
  const holder = IDS.find((other) => other !== id && keyOf(other, map) === key);
  useKeyMap.setState({ changed: { ...map.changed, [id]: key, ...(holder ? { [holder]: keyOf(id, map) } : {}) } });
}

export const resetKeys = (): void => useKeyMap.setState({ changed: {} });
export const switchSingleKeys = (single: boolean): void => useKeyMap.setState({ single });

export const useKeyList = create<{ open: boolean }>(() => ({ open: false }));
export const showKeys = (): void => useKeyList.setState({ open: true });
