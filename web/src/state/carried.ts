/** Regions that were copied in a song, for another one: kept in the browser, so that other tabs have them too. */
export interface Carried {
  songId: number;
  regionIds: string[];
  words: string;
}

const KEPT = "kind-satchel-carried";

export const carry = (what: Carried): void => localStorage.setItem(KEPT, JSON.stringify(what));

/** What was copied in another song than this one; null for nothing. */
export function carriedTo(songId: number | null): Carried | null {
  try {
    const what: Carried | null = JSON.parse(localStorage.getItem(KEPT) ?? "null");
    return what && what.songId !== songId && Array.isArray(what.regionIds) ? what : null;
  } catch {
    return null;
  }
}
