import type { EnvelopePart, Ticks } from "../api/types";
import { chosenNow, setChoice } from "./choice";
import { song } from "./song";

/** Places in order, as the fewest runs that name them. */
export function runsOf(indexes: number[]): [number, number][] {
  const runs: [number, number][] = [];
  for (const index of indexes) {
    const last = runs[runs.length - 1];
    if (last && last[1] === index - 1) last[1] = index;
    else runs.push([index, index]);
  }
  return runs;
}

const sorted = (indexes: Iterable<number>) => [...new Set(indexes)].sort((a, b) => a - b);

export type ChoiceMode = "only" | "through" | "toggle";

/** What the keys held at a press make of it. */
export const modeOf = (event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): ChoiceMode =>
  event.shiftKey ? "through" : event.ctrlKey || event.metaKey ? "toggle" : "only";

/** Chooses a point: it alone, all through to it, or it as well (or no longer). */
export function choose(envelopeId: string, index: number, mode: ChoiceMode, windowFrom: Ticks): void {
  const { envelopeId: before, chosen } = chosenNow();
  const known = before === envelopeId ? chosen : [];
  let next = [index];
  if (mode === "toggle")
    next = known.includes(index) ? known.filter((other) => other !== index) : sorted([...known, index]);
  if (mode === "through" && known.length > 0) {
    const [from, to] = [Math.min(known[0], index), Math.max(known[known.length - 1], index)];
    next = Array.from({ length: to - from + 1 }, (_, i) => from + i);
  }
  setChoice({ envelopeId, chosen: next, span: null, windowFrom });
}

export function chooseMany(
  envelopeId: string,
  indexes: number[],
  windowFrom: Ticks,
  span: [Ticks, Ticks] | null = null,
): void {
  setChoice({ envelopeId, chosen: sorted(indexes), span, windowFrom });
}

export const chooseNone = (): void => setChoice({ chosen: [], span: null });

/** The envelope at hand and its chosen points. */
export function choiceNow(): { envelope: EnvelopePart; chosen: number[]; span: [Ticks, Ticks] | null } | null {
  const { envelopeId, chosen, span } = chosenNow();
  const { model } = song();
  const envelope = envelopeId ? model.envelopes[envelopeId] : undefined;
  return envelope ? { envelope, chosen, span } : null;
}

/** The stretch a choice covers: the chosen range, or from the first to the last chosen point. */
export function stretchNow(): [Ticks, Ticks] | null {
  const choice = choiceNow();
  if (!choice) return null;
  if (choice.span && choice.span[1] > choice.span[0]) return choice.span;
  if (choice.chosen.length < 2) return null;
  const ticks = [choice.chosen[0], choice.chosen[choice.chosen.length - 1]].map((i) => choice.envelope.points[i].tick);
  return ticks[1] > ticks[0] ? [ticks[0], ticks[1]] : null;
}
