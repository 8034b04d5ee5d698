import { type RefObject, useEffect, useRef } from "react";
import type { Px } from "../api/types";

/** What a finger came down on: a mark that is chosen, one that is not, or bare ground and lines. */
export type UnderFinger = "chosen" | "mark" | "bare";

type Spot = { clientX: Px; clientY: Px };
/** A finger has said where it goes once it has come so far. */
const DECIDED: Px = 5;

/**
 * Lets the browser scroll from bare ground; from a mark that is not chosen up and down only, so that going over the
 * song by swipes moves no point. What is chosen goes along with the finger, whichever way.
 */
export function useMarkTouch(element: RefObject<Element | null>, under: (press: Spot) => UnderFinger): void {
  const asked = useRef(under);
  asked.current = under;
  useEffect(() => {
    let from: [Px, Px] | null = null;
    let ours = false;
    let pressed: UnderFinger = "bare";
    // Looked at before the press itself chooses what it came down on.
    const onPress = (event: Event) => {
      if ((event as PointerEvent).pointerType === "touch") pressed = asked.current(event as PointerEvent);
    };
    const onStart = (event: Event) => {
      const { touches } = event as TouchEvent;
      const what = touches.length > 1 ? "bare" : pressed;
      ours = what === "chosen";
      from = what === "mark" ? [touches[0].clientX, touches[0].clientY] : null;
      if (ours) event.preventDefault();
    };
    const onMove = (event: Event) => {
      const { touches } = event as TouchEvent;
      if (from && touches.length === 1) {
        const [across, down] = [touches[0].clientX - from[0], touches[0].clientY - from[1]].map(Math.abs);
        if (Math.max(across, down) < DECIDED) return;
        ours = across >= down;
        from = null;
      }
      if (ours && event.cancelable) event.preventDefault();
    };
    const node = element.current;
    node?.addEventListener("pointerdown", onPress);
    node?.addEventListener("touchstart", onStart, { passive: false });
    node?.addEventListener("touchmove", onMove, { passive: false });
    return () => {
      node?.removeEventListener("pointerdown", onPress);
      node?.removeEventListener("touchstart", onStart);
      node?.removeEventListener("touchmove", onMove);
    };
  }, [element]);
}
