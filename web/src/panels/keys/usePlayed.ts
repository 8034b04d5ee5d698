import { type PointerEvent, useRef } from "react";
import { noteOff, noteOn } from "../../gestures/playIn";

/** The softest a key on the screen plays, at its far end; at its near end it plays as loud as can be. */
const SOFTEST = 30;

/** The pitch and the loudness of the key at a place of the screen. */
function keyAt(x: number, y: number): { pitch: number; velocity: number } | null {
  const key = document.elementFromPoint(x, y)?.closest<HTMLElement>("[data-pitch]");
  if (!key) return null;
  const box = key.getBoundingClientRect();
  const share = Math.min(Math.max((y - box.top) / box.height, 0), 1);
  return { pitch: Number(key.dataset.pitch), velocity: Math.round(SOFTEST + share * (127 - SOFTEST)) };
}

/** Keys that are played by pointers, several at once; a finger or the mouse may glide from one to the next. */
export function usePlayed() {
  const held = useRef(new Map<number, number>());
  const letGo = (event: PointerEvent) => {
    const pitch = held.current.get(event.pointerId);
    held.current.delete(event.pointerId);
    if (pitch !== undefined) noteOff(pitch, event.timeStamp);
  };
  const take = (event: PointerEvent) => {
    const key = keyAt(event.clientX, event.clientY);
    const before = held.current.get(event.pointerId);
    if (key?.pitch === before) return;
    letGo(event);
    if (!key) return;
    held.current.set(event.pointerId, key.pitch);
    noteOn(key.pitch, key.velocity, event.timeStamp);
  };
  return {
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      take(event);
    },
    onPointerMove: (event: PointerEvent) => held.current.has(event.pointerId) && take(event),
    onPointerUp: letGo,
    onPointerCancel: letGo,
    onLostPointerCapture: letGo,
  };
}
