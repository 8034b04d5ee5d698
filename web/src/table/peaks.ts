import { useEffect, useState } from "react";
import { sounds } from "../api/client";

/** The outline of a recorded sound: its peaks, 0..1, spread evenly over its length. */
export interface Outline {
  peaks: number[];
  seconds: number;
}

const asked = new Map<string, Promise<Outline | null>>();

async function read(id: string): Promise<Outline> {
  const { peaks, seconds } = await sounds.outline(id);
  return { peaks: peaks.map((peak) => peak / 255), seconds };
}

const outline = (id: string): Promise<Outline | null> => {
  const found = asked.get(id) ?? read(id).catch(() => null);
  asked.set(id, found);
  return found;
};

/** The outlines of recorded sounds, by id, as they become known. */
export function usePeaksOf(ids: string[]): Record<string, Outline> {
  const [found, setFound] = useState<Record<string, Outline>>({});
  const wanted = ids.join(" ");
  useEffect(() => {
    let gone = false;
    for (const id of wanted.split(" ").filter(Boolean))
      void outline(id).then((known) => !gone && known && setFound((all) => (all[id] ? all : { ...all, [id]: known })));
    return () => {
      gone = true;
    };
  }, [wanted]);
  return found;
}

/** The outline of one sound, null until it is known. */
export const usePeaks = (id: string | null): Outline | null => usePeaksOf(id ? [id] : [])[id ?? ""] ?? null;
