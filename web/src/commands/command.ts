import type { ComponentType, PointerEvent } from "react";
import { type KeyId, keyOf, keyText } from "../state/keyMap";
import { tell } from "../state/notice";
import type { Deed } from "../ui/Menu";

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
  /** The same with what it is just now. */
  whatNow?: () => string;
  Icon?: ComponentType<{ size?: number }>;
  /** The key that does it: one that can be changed, or one that stands. */
  key?: KeyId;
  held?: string;
  /** Whether it stands in the bar beside the choice; of points and spans, beside which of them. */
  common?: true | "points" | "span" | "both";
  /** What its button does when it is pressed and dragged. */
  press?: (event: PointerEvent) => void;
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

/** Its key as people read it; nothing where it has none. */
export const keyTextOf = ({ key, held }: Command): string => (key ? keyText(keyOf(key)) : (held ?? ""));

/** Its key, to be put after what it says; not where fingers have no keys to press. */
export function hintOf(command: Command): string {
  const text = matchMedia("(pointer: coarse)").matches ? "" : keyTextOf(command);
  return text && ` (${text})`;
}

/** The same as an entry of a menu: why not stands in the place of what it does. */
export function entryOf(command: Command): Deed {
  const why = command.why();
  const what = why ?? (command.whatNow?.() ?? command.what) + hintOf(command);
  return {
    id: command.id,
    words: wordsOf(command),
    what,
    off: why !== null,
    removes: command.removes,
    act: command.run,
  };
}

/** Does it, or says why not. */
export function does(command: Command): void {
  const why = command.why();
  if (why) tell("fault", why);
  else void command.run();
}
