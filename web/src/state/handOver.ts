import { create } from "zustand";
import { type handingOver, limitSets } from "../api/handingOver";
import type { HandOver, HandOverChoices, HandOverLimits, HandOverLoss } from "../api/types";
import { faultsSaid } from "./queue";
import { useSong } from "./song";

type Api = ReturnType<typeof handingOver>;

/** What a sound that was made measures. */
export interface Heard {
  name: string;
  peak_db: number;
  true_peak_db: number;
  loudness: number;
}

/** A hand-over on its way: how far, at what, and an end to it. */
export interface Running {
  share: number;
  words: string;
  stop: () => void;
}

/** What is ready to be saved. */
export interface Ready {
  path: string;
  name: string;
  bytes: number;
  notes: string[];
  heard: Heard[];
}

interface State {
  songId: number | null;
  known: HandOver | null;
  choices: HandOverChoices;
  losses: HandOverLoss[] | null;
  running: Running | null;
  ready: Ready | null;
  fault: string | null;
}

const FRESH: State = {
  songId: null,
  known: null,
  choices: { midi: true },
  losses: null,
  running: null,
  ready: null,
  fault: null,
};
export const useHandOver = create<State>(() => FRESH);
export const handOverNow = useHandOver.getState;
export const setHandOver = useHandOver.setState;

/** Reads what the song was handed over with last. */
export async function readHandOver(songId: number, api: Api): Promise<void> {
  const known = await faultsSaid(api.known);
  if (!known) return;
  const { choices } = known;
  const again = handOverNow().songId === songId ? handOverNow().choices : choices;
  setHandOver({ songId, known, choices: { ...(Object.keys(choices).length > 0 ? {} : { midi: true }), ...again } });
}

export const choose = (change: Partial<HandOverChoices>): void =>
  setHandOver(({ choices }) => ({ choices: { ...choices, ...change }, ready: null, fault: null }));

/** Chooses limits; none for somebody who can do anything. */
export function limitTo(limits: HandOverLimits | null): void {
  const { limits: _, ...rest } = handOverNow().choices;
  setHandOver({ choices: limits ? { ...rest, limits } : rest, losses: null, ready: null, fault: null });
}

/** Keeps the limits that are chosen under a name. */
export async function keepLimits(name: string, songId: number, api: Api): Promise<void> {
  const { limits } = handOverNow().choices;
  if (limits && (await faultsSaid(() => limitSets.keep(name, limits)))) await readHandOver(songId, api);
}

useSong.subscribe((now, before) => {
  if (now.songId !== before.songId) setHandOver(FRESH);
  else if (now.revision !== before.revision) setHandOver({ losses: null, ready: null });
});
