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

/** What was done last, for whoever hears the page rather than sees it. */
export const useSpoken = create<{ words: string }>(() => ({ words: "" }));
/** The same words once more are told again: a space that is not seen makes them other ones. */
export const say = (words: string): void =>
  useSpoken.setState(({ words: before }) => ({ words: before === words ? `${words}\u00a0` : words }));

// A fault is an alert of its own; all else that is shown is told there too.
useNotice.subscribe(({ notice }) => notice?.tone === "done" && say(notice.words));

export const tell = (tone: Notice["tone"], words: string, undo = false): void =>
  setNotice({ notice: { tone, words, undo } });
