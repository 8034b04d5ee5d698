import { create } from "zustand";
import type { Snippet, SongStretch, Ticks } from "../api/types";

/** What is chosen, and what was copied. */
export interface Choice {
  /** The region at hand, and all that are chosen with it. */
  regionId: string | null;
  regionIds: string[];
  envelopeId: string | null;
  /** Places of the chosen points of that envelope, in order. */
  chosen: number[];
  /** A stretch of that envelope, in its own ticks. */
  span: [from: Ticks, to: Ticks] | null;
  /** The window the hand works in, by its first tick. */
  windowFrom: Ticks;
  /** Regions that were copied, a stretch of a move, or a stretch of the song. */
  clipboard: { regions: string[] } | { snippet: Snippet } | { stretch: SongStretch } | null;
}

const FRESH: Choice = {
  regionId: null,
  regionIds: [],
  envelopeId: null,
  chosen: [],
  span: null,
  windowFrom: 0,
  clipboard: null,
};

export const useChoice = create<Choice>(() => FRESH);
export const chosenNow = useChoice.getState;
export const setChoice = useChoice.setState;

export const resetChoice = (): void => setChoice(FRESH, true);

/** Chooses regions; the first of the list given is the one at hand. None clears the choice. */
export const chooseRegions = (ids: string[]): void => setChoice({ regionId: ids[0] ?? null, regionIds: ids });
