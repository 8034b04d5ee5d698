import type { Change, EditInputs } from "../api/types";
import { setNotice, say as speak, tell } from "./notice";
import { api } from "./questions";
import { faultsSaid, inTurn, type Say } from "./queue";
import { song } from "./song";
import { take, wants } from "./taking";

type Name = keyof EditInputs;
/** Inputs given as a function are asked for at the edit's turn, when all before it have been made. */
type Inputs<K extends Name> = EditInputs[K] | (() => EditInputs[K]);

/** Makes an edit. Null when it was refused; the reason is said, in the notice or where `say` puts it. */
export const edit = <K extends Name>(name: K, inputs: Inputs<K>, say?: Say): Promise<Change | null> =>
  made(name, inputs, say, (change) => speak(`Done: ${change.words}`));

const made = <K extends Name>(name: K, inputs: Inputs<K>, say: Say | undefined, told: (change: Change) => void) =>
  inTurn(() =>
    faultsSaid(async () => {
      setNotice({ notice: null });
      const given = typeof inputs === "function" ? inputs() : inputs;
      const wish = wants();
      const change = await api().edit(song().revision, name, given, wish);
      take(change, wish.heard);
      told(change);
      return change;
    }, say),
  );

/** Makes an edit and says what was done, with what came with it and the way back. */
export const editAndTell = <K extends Name>(name: K, inputs: Inputs<K>, say?: Say): Promise<Change | null> =>
  made(name, inputs, say, (change) =>
    tell("done", [`Done: ${change.words}`, ...change.notices.map(({ text }) => text)].join("; "), true),
  );

/** Makes an edit of what was typed into a field: null when it was taken, else what was wrong with it. */
export async function editTyped<K extends Name>(name: K, inputs: EditInputs[K]): Promise<string | null> {
  let fault: string | null = null;
  await edit(name, inputs, (words) => {
    fault = words;
  });
  return fault;
}

/** What is said before it is done: shared clips made separate, what is heard changed, what goes along or waits. */
const ASKED = new Set(["separated", "difference", "along", "sent", "loose"]);

/** Says first what is worth a second thought, and goes on once that is agreed to. */
export async function editAsking<K extends Name>(name: K, inputs: EditInputs[K]): Promise<void> {
  const trial = await faultsSaid(() => api().preview(song().revision, name, inputs, { heard: [] }));
  if (!trial) return;
  const doubts = trial.notices.filter(({ code }) => ASKED.has(code)).map(({ text }) => text);
  if (doubts.length === 0) return void (await editAndTell(name, inputs));
  setNotice({ notice: { tone: "done", words: `${doubts.join("; ")}.`, go: () => void editAndTell(name, inputs) } });
}

/** Goes to where just so many edits are in force. */
export const goTo = (place: number): Promise<void> =>
  inTurn(async () => {
    const wish = wants();
    const change = await faultsSaid(() => api().goTo(place, song().revision, wish));
    if (!change) return;
    take(change, wish.heard);
    tell("done", `Done: ${change.words}`);
  });

/** Takes the last edit back, or makes it again. */
export const step = (word: "undo" | "redo"): Promise<void> =>
  inTurn(async () => {
    if (!song()[word]) return;
    const wish = wants();
    const change = await faultsSaid(() => api().step(word, song().revision, wish));
    if (!change) return;
    take(change, wish.heard);
    tell("done", `${word === "undo" ? "Undone" : "Done again"}: ${change.words}`);
  });
