import { TAB, songApi } from "../api/client";
import { catchUp } from "./actions";
import { song, tell } from "./store";

/** Follows what other tabs do to a song. Returns how to stop. */
export function listen(songId: number): () => void {
  const events = songApi(songId).events();
  const moved = (revision: number) => song().songId === songId && revision > song().revision;
  events.addEventListener("changed", (event) => {
    const { revision, words, tab } = JSON.parse((event as MessageEvent<string>).data);
    if (tab === TAB || !moved(revision)) return;
    void catchUp().then(() => tell("done", `In another tab: ${words}`));
  });
  events.addEventListener("standing", (event) => {
    if (moved(JSON.parse((event as MessageEvent<string>).data).revision)) void catchUp();
  });
  return () => events.close();
}
