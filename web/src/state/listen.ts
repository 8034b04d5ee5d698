import { songApi, TAB } from "../api/client";
import { answered, wentAway } from "../api/connection";
import type { News } from "../api/types";
import { tell } from "./notice";
import { song } from "./song";
import { catchUp, follow } from "./taking";

const SAID: Record<News["step"], string> = { edit: "Done", undo: "Undone", redo: "Done again" };

/** Follows what other tabs do to a song. Returns how to stop. */
export function listen(songId: number): () => void {
  const events = songApi(songId).events();
  const moved = (revision: number) => song().songId === songId && revision > song().revision;
  events.addEventListener("changed", (event) => {
    const news = JSON.parse((event as MessageEvent<string>).data) as News;
    if (news.tab === TAB || !moved(news.revision)) return;
    void follow(news).then(() => tell("done", `${SAID[news.step]} in another tab: ${news.words}`));
  });
  events.addEventListener("error", wentAway);
  events.addEventListener("open", answered);
  events.addEventListener("standing", (event) => {
    if (moved(JSON.parse((event as MessageEvent<string>).data).revision)) void catchUp();
  });
  return () => events.close();
}
