import { chosenRegions } from "../gestures/choosing";
import { choiceNow } from "../state/choosing";
import { focusOf } from "../state/focus";
import type { Subject } from "../state/menu";
import { chosenNotes } from "../state/noteChoice";
import { viewNow } from "../state/view";
import { commandsOf, headOf } from ".";
import { type Command, wordsOf } from "./command";

/** A command that was found, and what it is done to. */
export interface FoundCommand {
  command: Command;
  about: string;
}

/** What commands can be about just now: what is chosen or at hand, the bars, the studio. */
function subjects(): Subject[] {
  const { trackId } = viewNow();
  const choice = choiceNow();
  const address = trackId && focusOf(trackId);
  return [
    ...(chosenNotes() ? [{ kind: "notes" } as const] : []),
    ...(choice ? ([{ kind: "points" }, { kind: "envelope", envelopeId: choice.envelope.id }] as const) : []),
    ...(chosenRegions().length > 0 ? [{ kind: "regions" } as const] : []),
    ...(address ? [{ kind: "knob", address } as const] : []),
    ...(trackId ? [{ kind: "track", trackId } as const] : []),
    { kind: "bars" },
    { kind: "studio" },
  ];
}

const wordsIn = (text: string): string[] => text.toLowerCase().split(/[^\p{L}\p{N}]+/u);

/** Commands that have a word for every word typed: those called so first, then those that speak of it. */
export function searchCommands(typed: string): FoundCommand[] {
  const wanted = wordsIn(typed).filter(Boolean);
  if (wanted.length === 0) return [];
  const holds = (text: string) => {
    const words = wordsIn(text);
    return wanted.every((want) => words.some((word) => word.startsWith(want)));
  };
  const all = subjects().flatMap((subject) =>
    commandsOf(subject).map((command) => ({ command, about: subject.kind === "bars" ? "Bars" : headOf(subject) })),
  );
  const named = all.filter(({ command }) => holds(wordsOf(command)));
  const told = all.filter((one) => !named.includes(one) && holds(`${wordsOf(one.command)} ${one.command.what}`));
  return [...named, ...told];
}
