import { useSyncExternalStore } from "react";

const NARROW = matchMedia("(max-width: 760px), (max-height: 480px)");
const listen = (told: () => void) => {
  NARROW.addEventListener("change", told);
  return () => NARROW.removeEventListener("change", told);
};

/** Whether the screen is a phone: one column wide, or lying on its side. */
export const useNarrow = (): boolean => useSyncExternalStore(listen, () => NARROW.matches);

export const isNarrow = (): boolean => NARROW.matches;
