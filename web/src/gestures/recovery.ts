import type { EditInputs } from "../api/types";
import { editAndTell } from "../state/edits";
import { drop, type Left, leftOf, type Sample } from "../state/journal";
import { setNotice } from "../state/notice";
import { song } from "../state/song";

type Move = EditInputs["record_moves"]["moves"][number];

/** A hand whose end is not known is taken to have let go so long after its last sample. */
const AFTER_SECONDS = 0.05;

/** What was played in one lap, as it is written. */
function lapOf(samples: Sample[]): Pick<EditInputs["record_moves"], "from_seconds" | "to_seconds" | "moves"> {
  const moves = new Map<string, Move>();
  for (const [address, , seconds, value] of samples) {
    const move = moves.get(address) ?? { address, grips: [] };
    moves.set(address, move);
    const grip = move.grips.at(-1);
    const open = grip && grip.until_seconds === undefined;
    if (value === null) {
      if (open) grip.until_seconds = seconds;
    } else if (open) grip.samples.push(seconds, value);
    else move.grips.push({ samples: [seconds, value] });
  }
  const times = samples.map(([, , seconds]) => seconds);
  return {
    from_seconds: Math.min(...times),
    to_seconds: Math.max(...times) + AFTER_SECONDS,
    moves: [...moves.values()],
  };
}

async function write({ key, ways, samples, notes }: Left): Promise<void> {
  const laps = [...new Set(samples.map(([, lap]) => lap))].sort((a, b) => a - b);
  for (const lap of laps) {
    const done = await editAndTell("record_moves", { ...ways, lap, ...lapOf(samples.filter((one) => one[1] === lap)) });
    if (!done) return;
  }
  if (notes && !(await editAndTell("record_notes", notes))) return;
  drop(key);
}

/** Offers again what was played into a song when the page, the server or the line broke off. */
export function offerLeft(songId: number): void {
  const found = leftOf(songId);
  if (found.length === 0 || song().songId !== songId) return;
  const samples = found.reduce((sum, one) => sum + one.samples.length, 0);
  const notes = found.reduce((sum, one) => sum + (one.notes?.notes.length ?? 0), 0);
  const words = [samples > 0 && `${samples} samples of moves`, notes > 0 && `${notes} notes`]
    .filter(Boolean)
    .join(" and ");
  setNotice({
    notice: {
      tone: "done",
      words: `Recording was broken off: ${words} were played and are not in the song yet. Write them now?`,
      go: async () => {
        for (const one of found) await write(one);
      },
      no: () => {
        for (const one of found) drop(one.key);
      },
    },
  });
}
