import { useEffect, useState } from "react";
import { Refused } from "../api/client";
import type { EditInputs } from "../api/types";
import { api } from "./questions";
import { song, useSong } from "./song";

/** What an edit would tell of certain matters, or why it is refused, before it is made and without showing it. */
export function useTold<K extends keyof EditInputs>(name: K, inputs: EditInputs[K], codes: readonly string[]): string {
  const [said, setSaid] = useState("");
  const revision = useSong((state) => state.revision);
  const wish = JSON.stringify(inputs);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when the wish or the song is another
  useEffect(() => {
    let over = false;
    api()
      .preview(song().revision, name, inputs, { heard: [] })
      .then(({ notices }) => notices.filter(({ code }) => codes.includes(code)).map(({ text }) => text))
      .catch((error) => (error instanceof Refused ? [error.message] : []))
      .then((words) => {
        if (!over) setSaid(words.join("; "));
      });
    return () => {
      over = true;
    };
  }, [wish, revision]);
  return said;
}
