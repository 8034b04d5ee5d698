import { create } from "zustand";
import type { VersionEntry } from "../api/types";

interface Hearing {
  /** What is heard instead of the song as it stands. */
  version: VersionEntry | null;
  /** The one heard last, for a key to come back to. */
  last: VersionEntry | null;
}

export const useHearing = create<Hearing>(() => ({ version: null, last: null }));
export const hearingNow = useHearing.getState;
export const setHearing = (version: VersionEntry | null): void =>
  useHearing.setState((before) => ({ version, last: version ?? before.last }));
/** Another song, or a version that is gone. */
export const forgetHearing = (): void => useHearing.setState({ version: null, last: null });
export const forgetLast = (id: number): void =>
  useHearing.setState((before) => (before.last?.id === id ? { last: null } : {}));
