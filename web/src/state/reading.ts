import { useEffect, useRef, useState } from "react";
import type { Normalised, Ticks } from "../api/types";
import { api } from "./questions";
import { useSong } from "./song";
import { transportNow } from "./transport";

/** What can be read: an envelope at a tick of its own time, an amount of it, or a value of a parameter. */
export type Question =
  | { envelope_id: string; tick: Ticks }
  | { envelope_id: string; value: Normalised }
  | { envelope_id: string; amount: Normalised }
  | { address: string; value: Normalised }
  | { address: string; tick: Ticks };

/** While it plays, frames matter more: then no more is asked for so long. */
const PLAYING_MS = 90;

/**
 * The core's text for something under a hand: one question at a time, always the newest; until then the last answer.
 */
export function useReading(question: Question | null): string {
  const [text, setText] = useState("");
  const revision = useSong((state) => state.revision);
  const wish = useRef<Question | null>(null);
  const busy = useRef(false);
  const key = question && JSON.stringify(question);
  // biome-ignore lint/correctness/useExhaustiveDependencies: an edit may give the same question another answer
  useEffect(() => {
    wish.current = key ? (JSON.parse(key) as Question) : null;
    if (!key) return setText("");
    const ask = async () => {
      busy.current = true;
      while (wish.current) {
        const next = wish.current;
        wish.current = null;
        const answer = await api()
          .reading(next)
          .catch(() => null);
        if (answer) setText(answer[1]);
        if (transportNow().playing) await new Promise((done) => setTimeout(done, PLAYING_MS));
      }
      busy.current = false;
    };
    if (!busy.current) void ask();
  }, [key, revision]);
  return text;
}
