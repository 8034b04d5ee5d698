import type { ComponentType } from "react";
import { type DeedId, keyOf, keyText } from "../state/keyMap";
import { tell } from "../state/notice";

/**
 * Something that can be done to what is chosen. The bar beside the choice, the menu of a right or long press, the
 * panel and the keys are all drawn from these, so that each is called and behaves the same wherever it is found.
 */
export interface Command {
  id: string;
  words: string;
  /** What it is called just now, where that changes. */
  wordsNow?: () => string;
  /** What it does, in a line. */
  what: string;
  Icon?: ComponentType<{ size?: number }>;
  /** The key that does it: one that can be changed, or one that stands. */
  key?: DeedId;
  held?: string;
  /** Whether it stands in the bar beside the choice. */
  common?: boolean;
  removes?: boolean;
  /** Of one that is switched, whether it is on. */
  on?: () => boolean;
  /** Whether the place of the playhead, or of the pointer, decides what it does. */
  placed?: boolean;
  /** Why it cannot be done now; null where it can. */
  why: () => string | null;
  run: () => unknown;
}

export const wordsOf = ({ words, wordsNow }: Command): string => wordsNow?.() ?? words;

/** Its key as people read it, to be put after what it says. */
export function hintOf({ key, held }: Command): string {
  const text = key ? keyText(keyOf(key)) : held;
  return text ? ` (${text})` : "";
}

/** Does it, or says why not. */
export function does(command: Command): void {
  const why = command.why();
  if (why) tell("fault", why);
  else void command.run();
}
