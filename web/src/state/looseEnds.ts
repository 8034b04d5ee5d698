import { create } from "zustand";
import type { LooseEnd } from "../api/types";
import { api } from "./questions";
import { song, useSong } from "./song";
import { viewNow } from "./view";

/** What the song holds that nobody meant: the first of it one by one; null until it was asked for. */
interface Ends {
  list: LooseEnd[] | null;
  count: number;
  aside: number;
  revision: number;
  /** Whether it took long the last time: then it is looked for only while the list is in view. */
  slow: boolean;
}

const NONE: Ends = { list: null, count: 0, aside: 0, revision: -1, slow: false };
export const useLooseEnds = create<Ends>(() => NONE);
const SLOW_MS = 300;

/** How long the song rests before it is looked through again. */
const REST_MS = 400;
let timer = 0;

/** Looks the song through once it rests; an answer to an older song is asked for again. */
export function lookAgain(): void {
  clearTimeout(timer);
  const { sheet, panelOpen } = viewNow();
  if (useLooseEnds.getState().slow && !(sheet === "ends" && panelOpen)) return;
  timer = window.setTimeout(async () => {
    const { songId, revision } = song();
    if (songId === null || useLooseEnds.getState().revision === revision) return;
    const start = performance.now();
    const found = await api()
      .looseEnds()
      .catch(() => null);
    if (!found || song().songId !== songId) return;
    const slow = performance.now() - start > SLOW_MS;
    const { ends, count, aside } = found;
    useLooseEnds.setState({ list: ends, count, aside, revision: found.revision, slow });
    if (song().revision !== found.revision) lookAgain();
  }, REST_MS);
}

useSong.subscribe((now, before) => {
  if (now.songId !== before.songId) useLooseEnds.setState(NONE);
  if (now.revision !== before.revision || now.songId !== before.songId) lookAgain();
});
