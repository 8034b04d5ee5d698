import { useEffect, useState } from "react";
import type { Px } from "../api/types";

/** A screen keyboard takes at least this share of the height. */
const KEYBOARD_SHARE = 0.25;

const inField = (): boolean =>
  document.activeElement instanceof HTMLInputElement || document.activeElement instanceof HTMLTextAreaElement;

/** What of the page is seen: its height, and whether a screen keyboard covers the rest while a field is typed into. */
export function useSeen(): { height: Px | null; typing: boolean } {
  const [seen, setSeen] = useState<{ height: Px | null; typing: boolean }>({ height: null, typing: false });
  useEffect(() => {
    const view = window.visualViewport;
    if (!view) return;
    let whole = view.height;
    const look = () => {
      const field = inField();
      if (!field) whole = Math.max(view.height, window.innerHeight);
      const typing = field && view.height < whole * (1 - KEYBOARD_SHARE);
      setSeen((before) =>
        before.typing === typing && before.height === view.height ? before : { height: view.height, typing },
      );
    };
    const later = () => requestAnimationFrame(look);
    view.addEventListener("resize", look);
    window.addEventListener("focusin", later);
    window.addEventListener("focusout", later);
    return () => {
      view.removeEventListener("resize", look);
      window.removeEventListener("focusin", later);
      window.removeEventListener("focusout", later);
    };
  }, []);
  return seen;
}
