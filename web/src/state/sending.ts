import { create } from "zustand";
import { newToken } from "../api/client";

/** A file on its way to the server: how much has gone out, and an end to it. */
export interface Sending {
  id: string;
  name: string;
  share: number;
  stop: () => void;
}

export const useSending = create<{ files: Sending[] }>(() => ({ files: [] }));

const change = (next: (files: Sending[]) => Sending[]) => useSending.setState(({ files }) => ({ files: next(files) }));

/** Shows a file on its way while work goes on. */
export async function sendingShown<T>(
  name: string,
  work: (told: (share: number) => void, stop: AbortSignal) => Promise<T>,
): Promise<T> {
  const id = newToken();
  const stopper = new AbortController();
  change((files) => [...files, { id, name, share: 0, stop: () => stopper.abort() }]);
  try {
    return await work(
      (share) => change((files) => files.map((file) => (file.id === id ? { ...file, share } : file))),
      stopper.signal,
    );
  } finally {
    change((files) => files.filter((file) => file.id !== id));
  }
}
