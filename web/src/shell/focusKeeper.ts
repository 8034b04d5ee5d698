import { useEffect } from "react";
import { chosenNow, useChoice } from "../state/choice";
import { useSong } from "../state/song";
import { tableBox } from "../state/stage";
import { setWishes } from "../state/wishes";

let last: "pointer" | "key" = "pointer";
let focusedBy: "pointer" | "key" = "pointer";

/** Whether the focus is where it is because something was pressed, not because the keyboard went there. */
export const byPointer = (): boolean => focusedBy === "pointer";

const onPointer = (): void => {
  last = "pointer";
  focusedBy = "pointer";
};
const onKey = ({ key }: KeyboardEvent): void => {
  if (key !== " ") last = "key";
};
const onFocus = (): void => {
  focusedBy = last;
};

/** When what had the focus is gone, the chosen point or region gets it, else the table: never the page. */
function keep(): void {
  requestAnimationFrame(() => {
    if (document.activeElement !== document.body) return;
    const { envelopeId, chosen, regionId, windowFrom } = chosenNow();
    if (envelopeId && chosen.length > 0) setWishes({ point: { envelopeId, index: chosen[0], windowFrom } });
    else if (regionId) setWishes({ region: regionId });
    requestAnimationFrame(() => {
      if (document.activeElement === document.body) tableBox()?.focus({ preventScroll: true });
    });
  });
}

export function useFocusKeeper(): void {
  useEffect(() => {
    keep();
    window.addEventListener("pointerdown", onPointer, true);
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("focusin", onFocus, true);
    window.addEventListener("focusout", keep);
    const stops = [useSong.subscribe((now, before) => now.model !== before.model && keep()), useChoice.subscribe(keep)];
    return () => {
      window.removeEventListener("pointerdown", onPointer, true);
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("focusin", onFocus, true);
      window.removeEventListener("focusout", keep);
      for (const stop of stops) stop();
    };
  }, []);
}
