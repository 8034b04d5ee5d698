import type { HandPass, Ticks } from "../../api/types";

export type TakePart = NonNullable<HandPass["parts"]>[number];

/** Past the end of every song. */
const END: Ticks = 268_435_455;

/** What is chosen as parts that fill all of time: without a choice the last lap. */
function whole({ parts, laps }: HandPass): TakePart[] {
  return parts ?? [{ lap: laps[laps.length - 1].lap, from_tick: 0, to_tick: END }];
}

/** The parts with a stretch of one lap put in place of what lay there. */
export function spliced(pass: HandPass, part: TakePart): TakePart[] {
  const { from_tick: from, to_tick: to } = part;
  const cut = whole(pass).flatMap((one) => [
    { ...one, to_tick: Math.min(one.to_tick, from) },
    { ...one, from_tick: Math.max(one.from_tick, to) },
  ]);
  const all = [...cut.filter((one) => one.to_tick > one.from_tick), part].sort((a, b) => a.from_tick - b.from_tick);
  return all.reduce<TakePart[]>((list, one) => {
    const last = list[list.length - 1];
    if (last && last.lap === one.lap && last.to_tick === one.from_tick) last.to_tick = one.to_tick;
    else list.push({ ...one });
    return list;
  }, []);
}

/** "1 point", "3 points". */
export const count = (number: number, word: string) => `${number} ${word}${number === 1 ? "" : "s"}`;
