import { create } from "zustand";
import type { Ticks } from "../api/types";

/** When the beat is clicked. */
export const CLICKS = {
  never: "no click",
  recording: "click while recording",
  playing: "click while playing",
} as const;
export type Clicks = keyof typeof CLICKS;

/** How notes are played in, on this device; kept in the browser, not with a song. */
export interface Ways {
  /** Bars that are counted before recording begins. */
  countIn: number;
  click: Clicks;
  /** Whether a pass replaces what it goes over; else it adds. */
  replace: boolean;
  /** Whether starts come to the grid. */
  onGrid: boolean;
  /** How loud keys without a touch of their own are, 1..127. */
  velocity: number;
  /** The lowest note of the keys on the screen. */
  lowest: number;
  /** The id of the input that plays: a keyboard of the browser's, or one of ours; empty for none besides the screen. */
  input: string;
  /** How late its notes come in, in milliseconds; taken off. */
  latenessMs: number;
}

interface PlayIn extends Ways {
  /** The track that is being played into; null while nothing is recorded. */
  recording: string | null;
  /** Whether the computer's keyboard plays. */
  typing: boolean;
  /** Pitches that are held now, for the keys to show. */
  held: number[];
  /** Notes that are taken down and not written yet, in ticks of the song; the end of one that is held is not known. */
  taken: { start: Ticks; end: Ticks | null; pitch: number }[];
  /** Inputs to choose from. */
  inputs: { id: string; name: string }[];
}

const KEPT = "kind-satchel-play-in";
const MOST_COUNT_IN = 4;
/** Bars that may be counted in, in words. */
export const COUNTS: Record<string, string> = Object.fromEntries(
  Array.from({ length: MOST_COUNT_IN + 1 }, (_, bars) => [
    String(bars),
    bars === 0 ? "no count-in" : `count ${bars} bar${bars > 1 ? "s" : ""}`,
  ]),
);
const FRESH: Ways = {
  countIn: 1,
  click: "recording",
  replace: false,
  onGrid: false,
  velocity: 100,
  lowest: 36,
  input: "",
  latenessMs: 0,
};

function kept(): Ways {
  try {
    return { ...FRESH, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}") };
  } catch {
    return FRESH;
  }
}

export const usePlayIn = create<PlayIn>(() => ({
  ...kept(),
  recording: null,
  typing: false,
  held: [],
  taken: [],
  inputs: [],
}));
export const playInNow = usePlayIn.getState;
export const setPlayIn = usePlayIn.setState;

/** Changes how notes are played in, and keeps it. */
export function setWays(change: Partial<Ways>): void {
  setPlayIn(change);
  const now = playInNow();
  const ways = Object.fromEntries(Object.keys(FRESH).map((key) => [key, now[key as keyof Ways]]));
  localStorage.setItem(KEPT, JSON.stringify(ways));
}
