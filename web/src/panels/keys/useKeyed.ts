import { type KeyboardEvent, useRef } from "react";
import { noteOff, noteOn } from "../../gestures/playIn";
import { playInNow } from "../../state/playIn";

/** Keys on the screen by the keyboard: arrows go from one to the next, Enter plays the one in focus. */
export function useKeyed(pitches: number[]) {
  const keys = useRef(new Map<number, HTMLElement>());
  const pitchOf = ({ target }: KeyboardEvent) => pitches.find((pitch) => keys.current.get(pitch) === target) ?? null;
  return {
    /** To be given to each key as its `ref`. */
    keyRef: (pitch: number) => (node: HTMLElement | null) => {
      if (node) keys.current.set(pitch, node);
      else keys.current.delete(pitch);
    },
    handlers: {
      onKeyDown: (event: KeyboardEvent) => {
        const pitch = pitchOf(event);
        const way = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
        if (pitch === null || (!way && event.key !== "Enter")) return;
        event.preventDefault();
        event.stopPropagation();
        if (way) keys.current.get(pitches[pitches.indexOf(pitch) + way])?.focus();
        else if (!event.repeat) noteOn(pitch, playInNow().velocity, event.timeStamp);
      },
      onKeyUp: (event: KeyboardEvent) => {
        const pitch = pitchOf(event);
        if (pitch !== null && event.key === "Enter") noteOff(pitch, event.timeStamp);
      },
    },
  };
}
