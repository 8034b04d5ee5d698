import { songApi, TAB } from "../api/client";
import { answered, keptNow, onceBack, wentAway } from "../api/connection";
import type { Listening, News } from "../api/types";
import { takeListening } from "./listening";
import { tell } from "./notice";
import { song } from "./song";
import { catchUp, follow } from "./taking";

/** What a tab is told when it begins to follow, or follows again. */
interface Standing {
  revision: number;
  listening: Listening;
}

const SAID: Record<News["step"], string> = { edit: "Done", undo: "Undone", redo: "Done again" };

/** Follows what other tabs do to a song. Returns how to stop. */
export function listen(songId: number): () => void {
  if (keptNow() !== null) onceBack(() => song().songId === songId && void catchUp());
  const events = songApi(songId).events();
  const moved = (revision: number) => song().songId === songId && revision > song().revision;
  events.addEventListener("changed", (event) => {
    const news = JSON.parse((event as MessageEvent<string>).data) as News;
    if (news.tab === TAB || !moved(news.revision)) return;
    void follow(news).then(() => tell("done", `${SAID[news.step]} in another tab: ${news.words}`));
  });
  events.addEventListener("listening", (event) => {
    const { tab, ...now } = JSON.parse((event as MessageEvent<string>).data) as Listening & { tab: string | null };
    if (tab !== TAB && song().songId === songId) takeListening(now);
  });
  events.addEventListener("error", wentAway);
  events.addEventListener("open", answered);
  events.addEventListener("snapshot", (event) => {
    const { revision, listening } = JSON.parse((event as MessageEvent<string>).data) as Standing;
    if (song().songId === songId) takeListening(listening);
    if (moved(revision)) void catchUp();
  });
  return () => events.close();
}
