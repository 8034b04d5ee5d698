import type { Px } from "../api/types";
import type { Press } from "./drag";

/** A finger that lies still for so long takes hold. */
const HOLD_MS = 350;
/** One that moves further before scrolls. */
const STILL: Px = 10;

let held = false;

const keepStill = (event: TouchEvent): void => {
  if (held && event.cancelable) event.preventDefault();
};

/** For things that a finger can take hold of: while it does, nothing scrolls. Given as the `ref` of the element. */
export function holdable(node: HTMLElement | null): void {
  node?.addEventListener("touchmove", keepStill, { passive: false });
}

/** A finger that rests so long on something asks what can be done there; it does nothing else. */
export const RESTED_MS = 600;

/** Calls back once a finger has rested so long; not where it wanders or lifts before. */
export function whenRested({ pointerId, clientX, clientY }: Press, after: number, act: () => void): void {
  const timer = setTimeout(() => {
    end();
    act();
  }, after);
  const onMove = (move: PointerEvent) => {
    if (move.pointerId === pointerId && Math.hypot(move.clientX - clientX, move.clientY - clientY) > STILL) end();
  };
  const onGone = (gone: PointerEvent) => {
    if (gone.pointerId === pointerId) end();
  };
  function end() {
    clearTimeout(timer);
    window.removeEventListener("pointermove", onMove);
    window.removeEventListener("pointerup", onGone);
    window.removeEventListener("pointercancel", onGone);
  }
  window.addEventListener("pointermove", onMove);
  window.addEventListener("pointerup", onGone);
  window.addEventListener("pointercancel", onGone);
}

/** Calls back once a finger has taken hold; a mouse or pen does so at once. */
export function whenHeld(event: Press, take: (press: Press) => void): void {
  if (event.pointerType !== "touch") return take(event);
  const { pointerId, clientX, clientY, currentTarget } = event;
  const letGo = () => {
    held = false;
    window.removeEventListener("pointerup", letGo);
    window.removeEventListener("pointercancel", letGo);
  };
  whenRested(event, HOLD_MS, () => {
    held = true;
    window.addEventListener("pointerup", letGo);
    window.addEventListener("pointercancel", letGo);
    navigator.vibrate?.(8);
    take({ button: 0, pointerType: "touch", pointerId, clientX, clientY, currentTarget, stopPropagation: () => {} });
  });
}
