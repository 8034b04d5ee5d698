import { useSyncExternalStore } from "react";

const NARROW = matchMedia("(max-width: 760px)");
const listen = (told: () => void) => {
  NARROW.addEventListener("change", told);
  return () => NARROW.removeEventListener("change", told);
};

/** Whether the screen is one column wide. */
export const useNarrow = (): boolean => useSyncExternalStore(listen, () => NARROW.matches);
