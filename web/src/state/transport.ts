import { create } from "zustand";
import type { Head, Ticks } from "../api/types";

/** Where playing stands. */
export interface Transport {
  playhead: Ticks;
  playing: boolean;
  /** Where the playhead comes in a straight line, in so many seconds from when this was set; null when it stands. */
  glide: { tick: Ticks; seconds: number } | null;
  /** The range while a hand draws it. */
  rangeTrial: Head["range"] | null;
}

const FRESH: Transport = { playhead: 0, playing: false, glide: null, rangeTrial: null };

export const useTransport = create<Transport>(() => FRESH);
export const transportNow = useTransport.getState;
export const setTransport = useTransport.setState;

export const resetTransport = (): void => setTransport(FRESH, true);

/** How loud it is at the loudspeaker now, 0..1 and above. */
export const useLevel = create<{ level: number }>(() => ({ level: 0 }));
/** The loudest of each track since it was last told. */
export const usePeaks = create<{ peaks: Record<string, number> }>(() => ({ peaks: {} }));
export const setPeaks = (peaks: Record<string, number>): void => usePeaks.setState({ peaks });
export const setLevel = (level: number): void => useLevel.setState({ level });
