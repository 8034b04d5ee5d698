import { create } from "zustand";
import type { Px } from "../api/types";

/** A value that is being typed where it stands: of which parameter, and where on the screen. */
export interface Typing {
  address: string;
  x: Px;
  y: Px;
}

export const useTyping = create<{ at: Typing | null }>(() => ({ at: null }));
export const stopTyping = (): void => useTyping.setState({ at: null });

/** Opens the field for a value under what shows it; from a menu or a key, under the knob that is in sight. */
export function typeValue(address: string, shower?: Element): void {
  const found = shower ?? inSight(address);
  const { left, width, bottom } = found?.getBoundingClientRect() ?? {
    left: innerWidth / 2,
    width: 0,
    bottom: innerHeight / 2,
  };
  useTyping.setState({ at: { address, x: left + width / 2, y: bottom } });
}

/** What shows a value on the page, by the address of its parameter. */
const showers = new Map<string, Set<Element>>();

/** Says that something shows a value, until what it returns is called. */
export function shows(address: string, element: Element): () => void {
  const all = showers.get(address) ?? new Set();
  showers.set(address, all.add(element));
  return () => void all.delete(element);
}

const inSight = (address: string): Element | undefined =>
  [...(showers.get(address) ?? [])].find((element) => {
    const { top, bottom, left, right } = element.getBoundingClientRect();
    return bottom > 0 && top < innerHeight && right > 0 && left < innerWidth;
  });
