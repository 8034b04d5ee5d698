import { create } from "zustand";
import type { Normalised, Seconds, Ticks } from "../api/types";
import { movesHere, ownClip, trackOf } from "./catalogue";
import { lookup } from "./lookup";
import { song } from "./song";

/** What a pass takes. */
export const TAKEN = { moves: "moves", notes: "notes", both: "moves and notes" } as const;
/** Where moves go. */
export const GOALS = { clip: "into the clip", lane: "into the lane", carrier: "into a new carrier" } as const;
/** Where a pass can be written afterwards, besides. */
export const ONCE = { once: "once over each region" } as const;
/** How long they are written. */
export const SPANS = { touch: "touch: until let go", latch: "latch: on to the end of the lap" } as const;
/** What further laps do. */
export const LAPS = { every: "each lap writes over", first: "only the first lap writes" } as const;
/** When a knob that was let go follows the song again. */
export const BACKS = { once: "back at once", lap: "back at the next lap", stop: "back at stop" } as const;
/** How what is written acts. */
export const ROLES = { as: "acts as it does there", set: "sets", shift: "shifts", scale: "scales" } as const;

/** How hands are recorded, on this device; kept in the browser, not with a song. */
export interface HandWays {
  taken: keyof typeof TAKEN;
  into: keyof typeof GOALS;
  span: keyof typeof SPANS;
  laps: keyof typeof LAPS;
  back: keyof typeof BACKS;
  role: keyof typeof ROLES;
  /** Over so many seconds what was let go comes back. */
  glide: Seconds;
  onGrid: boolean;
  insideRange: boolean;
  /** Whether clips that are shared are made separate first. */
  separate: boolean;
  /** Whether what is armed stays armed after a pass. */
  pinned: boolean;
  /** How late what comes from a hand is, besides what is known, in milliseconds; taken off. */
  latenessMs: number;
}

/** What is armed: single parameters by address, tracks and clips by id. */
export interface Armed {
  knobs: string[];
  tracks: string[];
  clips: string[];
}

/** One touch as it is being written: places in ticks of the song. */
export interface Line {
  ticks: Ticks[];
  values: Normalised[];
  /** Where it ends, or has come to; the last value holds up to there. */
  end?: Ticks;
}

interface Performing extends HandWays {
  armed: Armed;
  /** The pass that goes on, by its id. */
  pass: string | null;
  /** What hands hold now. */
  hands: Record<string, Normalised>;
  /** What this lap has been given so far, by parameter. */
  lines: Record<string, Line[]>;
}

const KEPT = "kind-satchel-hands";
const FRESH: HandWays = {
  taken: "both",
  into: "clip",
  span: "touch",
  laps: "every",
  back: "once",
  role: "as",
  glide: 0,
  onGrid: false,
  insideRange: false,
  separate: false,
  pinned: false,
  latenessMs: 0,
};
const NOTHING: Armed = { knobs: [], tracks: [], clips: [] };

function kept(): HandWays {
  try {
    return { ...FRESH, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}") };
  } catch {
    return FRESH;
  }
}

export const usePerforming = create<Performing>(() => ({
  ...kept(),
  armed: NOTHING,
  pass: null,
  hands: {},
  lines: {},
}));
export const performingNow = usePerforming.getState;
export const setPerforming = usePerforming.setState;

/** Changes how hands are recorded, and keeps it. */
export function setHandWays(change: Partial<HandWays>): void {
  setPerforming(change);
  const now = performingNow();
  const ways = Object.fromEntries(Object.keys(FRESH).map((key) => [key, now[key as keyof HandWays]]));
  localStorage.setItem(KEPT, JSON.stringify(ways));
}

export const disarm = (): void => setPerforming({ armed: NOTHING });

/** Arms one more thing, or no longer. */
export function toggleArm(kind: keyof Armed, id: string): void {
  const { armed } = performingNow();
  const on = armed[kind].includes(id);
  setPerforming({
    armed: { ...armed, [kind]: on ? armed[kind].filter((other) => other !== id) : [...armed[kind], id] },
  });
}

export const anyArmed = ({ knobs, tracks, clips }: Armed): boolean => knobs.length + tracks.length + clips.length > 0;

/**
 * Whether a hand on a parameter is written while a pass goes on: it is armed, or its track is, or a clip that moves it.
 */
export function isArmed({ knobs, tracks, clips }: Armed, address: string): boolean {
  if (knobs.includes(address)) return true;
  if (tracks.length === 0 && clips.length === 0) return false;
  const { model } = song();
  if (tracks.includes(trackOf(model, address))) return true;
  return clips.some((id) => {
    const placed = lookup(model).placed[id] ?? [];
    return (
      ownClip(model, address)?.id === id || placed.some(({ owner }) => movesHere(model, address, owner.slice(6), id))
    );
  });
}

let coming: Record<string, Normalised | null> = {};
let frame = 0;

function show(): void {
  cancelAnimationFrame(frame);
  frame = 0;
  const hands = { ...performingNow().hands };
  for (const [address, value] of Object.entries(coming)) {
    if (value === null) delete hands[address];
    else hands[address] = value;
  }
  coming = {};
  setPerforming({ hands });
}

/** Shows a parameter where a hand has it, once a frame; at once where it was taken hold of, or, by null, let go. */
export function setHandAt(address: string, value: Normalised | null): void {
  coming[address] = value;
  if (value === null || performingNow().hands[address] === undefined) show();
  else frame ||= requestAnimationFrame(show);
}
