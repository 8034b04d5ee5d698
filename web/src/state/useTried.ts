import { useEffect, useRef, useState } from "react";
import type { EditInputs } from "../api/types";
import { previewer, type Trial } from "./previewer";

interface Tried {
  /** What the hand is at; null where it is not on it. */
  wish: number | null;
  ask: (wish: number) => void;
  /** The hand lets go. */
  keep: () => void;
}

/** A number on a slider that is tried while the hand moves, and made one edit of when it lets go. */
export function useTried<K extends keyof EditInputs>(
  change: K,
  value: number,
  inputs: (wish: number) => EditInputs[K],
  onCommit: (wish: number) => Promise<unknown>,
): Tried {
  const hand = useRef<{ trial: Trial; wish: number } | null>(null);
  const [wish, setWish] = useState<number | null>(null);
  // What was wished for holds by now, unless the hand has moved on.
  const settle = () => hand.current === null && setWish(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a value that has come
  useEffect(() => void settle(), [value]);
  const ask = (next: number) => {
    setWish(next);
    hand.current = { trial: hand.current?.trial ?? previewer(), wish: next };
    hand.current.trial.ask(change, inputs(next));
  };
  const keep = () => {
    if (!hand.current) return;
    const { trial, wish: wished } = hand.current;
    hand.current = null;
    trial.end(true);
    void onCommit(wished).then(settle);
  };
  return { wish, ask, keep };
}
