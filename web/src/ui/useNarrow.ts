import { useSyncExternalStore } from "react";

/** A size of the screen that a page asks about; in em, so that large text counts as a small screen. */
function sized(query: string) {
  const list = matchMedia(query);
  const listen = (told: () => void) => {
    list.addEventListener("change", told);
    return () => list.removeEventListener("change", told);
  };
  return { use: () => useSyncExternalStore(listen, () => list.matches), now: () => list.matches };
}

const NARROW = sized("(max-width: 49.9375em), (max-height: 30em)");
const ROOMY = sized("(min-width: 43.75em)");

/** Whether the screen is a phone or an upright tablet: one column, or a phone lying on its side. */
export const useNarrow = NARROW.use;
export const isNarrow = NARROW.now;

/** Whether beside the names of tracks there is room for what is done with them. */
export const useRoomy = ROOMY.use;
