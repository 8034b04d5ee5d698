import { useState } from "react";
import { isClip, type Owner } from "../../state/catalogue";

/** The cards of a chain while one of them is carried along it. */
export interface Carrying {
  /** Takes note of where a card lies. */
  note(id: string, card: HTMLElement | null): void;
  /** The device that a card dropped at a place of the screen comes before; null for the end of the chain. */
  beforeAt(x: number): string | null;
  /** Where the hand is; null while nothing is carried. */
  at: number | null;
  carry(x: number | null): void;
}

export function useCarrying(owner: Owner | undefined): Carrying {
  const [at, carry] = useState<number | null>(null);
  const [boxes] = useState(() => new Map<string, HTMLElement>());
  const beforeAt = (x: number): string | null => {
    const over = (owner?.devices ?? []).find(({ id }) => {
      const box = boxes.get(id)?.getBoundingClientRect();
      return box !== undefined && x < box.left + box.width / 2;
    });
    return over && (over.type !== "channel" || (owner && isClip(owner))) ? over.id : null;
  };
  const note = (id: string, card: HTMLElement | null) => {
    if (card) boxes.set(id, card);
    else boxes.delete(id);
  };
  return { note, beforeAt, at, carry };
}
