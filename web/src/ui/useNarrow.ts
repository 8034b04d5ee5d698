import { useSyncExternalStore } from "react";

/** A size of the screen that a page asks about. */
function sized(query: string) {
  const list = matchMedia(query);
  const listen = (told: () => void) => {
    list.addEventListener("change", told);
    return () => list.removeEventListener("change", told);
  };
  return { use: () => useSyncExternalStore(listen, () => list.matches), now: () => list.matches };
}

const NARROW = sized("(max-width: 799px), (max-height: 480px)");
const ROOMY = sized("(min-width: 700px)");

/** Whether the screen is a phone or an upright tablet: one column, or a phone lying on its side. */
export const useNarrow = NARROW.use;
export const isNarrow = NARROW.now;

/** Whether beside the names of tracks there is room for what is done with them. */
export const useRoomy = ROOMY.use;
