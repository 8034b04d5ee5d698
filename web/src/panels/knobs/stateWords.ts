import { type Acting, actingWords } from "../../state/acting";

/** How a parameter stands with hands. */
export type Arming = "armed" | "written" | null;

/** What stands under a knob: the state that matters most. */
export function stateWord(arming: Arming, held: boolean, acts: Acting): string {
  if (arming === "written") return "writing";
  if (arming === "armed") return "armed";
  return held ? "held" : actingWords(acts);
}

/** All of its states, to be read after its name. */
export function stateWords(arming: Arming, held: boolean, acts: Acting): string {
  const words = actingWords(acts);
  const moved = held ? ", held by hand" : words ? `, moved by ${words}` : "";
  if (arming === null) return moved;
  return `${arming === "written" ? ", being written" : ", armed"}${moved}`;
}
