import type { KeyboardEvent } from "react";
import { noteOff, noteOn } from "../../gestures/playIn";
import { playInNow } from "../../state/playIn";

/** Keys on the screen by the keyboard: arrows go from one to the next, Enter plays the one in focus. */
export function useKeyed() {
  const pitchOf = ({ target }: KeyboardEvent) => {
    const { pitch } = (target as HTMLElement).dataset;
    return pitch === undefined ? null : Number(pitch);
  };
  return {
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
      const pitch = pitchOf(event);
      const way = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
      if (pitch === null || (!way && event.key !== "Enter")) return;
      event.preventDefault();
      event.stopPropagation();
      if (!way) return event.repeat ? undefined : noteOn(pitch, playInNow().velocity, event.timeStamp);
      const keys = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-pitch]")];
      keys.sort((one, other) => Number(one.dataset.pitch) - Number(other.dataset.pitch));
      keys[keys.indexOf(event.target as HTMLElement) + way]?.focus();
    },
    onKeyUp: (event: KeyboardEvent) => {
      const pitch = pitchOf(event);
      if (pitch !== null && event.key === "Enter") noteOff(pitch, event.timeStamp);
    },
  };
}
