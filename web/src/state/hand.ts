import { create } from "zustand";
import type { Normalised, Px, Ticks } from "../api/types";

/** What a hand is doing to an envelope right now. */
export interface Hand {
  kind: "move" | "add" | "bend" | "draw" | "limit";
  envelopeId: string;
  index: number | null;
  /** Words beside the hand, where the touched point has none. */
  words?: string;
  /** The amount that a limit is dragged to. */
  amount?: Normalised;
  /** What is being drawn or lassoed, in pixels of the strip. */
  trail?: [Px, Px][];
  /** Whether it is a finger, which covers what is under it. */
  finger?: boolean;
  /** The window it works in, by its first tick. */
  windowFrom: Ticks;
}

/** What hands are doing on the screen; none of it lasts. */
export interface Hands {
  hand: Hand | null;
  /** Where a hand that carries something is on the screen, why it may not drop it there, or what it does there. */
  carry: { x: Px; y: Px; fault: string | null; words?: string } | null;
  /** A fade being dragged from a corner of a region. */
  fading: { regionId: string; side: "in" | "out"; length: Ticks } | null;
  /** A loop being drawn about regions, on the screen. */
  loop: { left: Px; top: Px; width: Px; height: Px } | null;
  /** The song tick under the pointer, over the strips of a track. */
  pointer: Ticks | null;
}

const FRESH: Hands = { hand: null, carry: null, fading: null, loop: null, pointer: null };

export const useHand = create<Hands>(() => FRESH);
export const handNow = useHand.getState;
export const setHand = useHand.setState;

/** Whether a hand is at work in the table, which must not move under it then. */
export const handsBusy = (): boolean => {
  const { hand, carry, fading, loop } = handNow();
  return hand !== null || carry !== null || fading !== null || loop !== null;
};

export const resetHand = (): void => setHand(FRESH, true);
