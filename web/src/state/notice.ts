import { create } from "zustand";

export interface Notice {
  tone: "done" | "fault";
  words: string;
  undo?: boolean;
  /** Puts back what was let go of. */
  back?: () => unknown;
  /** Goes on with what was only announced. */
  go?: () => void;
  /** Gives it up for good. */
  no?: () => void;
}

export const useNotice = create<{ notice: Notice | null }>(() => ({ notice: null }));
export const setNotice = useNotice.setState;

export const tell = (tone: Notice["tone"], words: string, undo = false): void =>
  setNotice({ notice: { tone, words, undo } });
