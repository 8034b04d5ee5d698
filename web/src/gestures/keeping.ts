import type { PointerEvent } from "react";
import type { Px } from "../api/types";
import { findParameter } from "../state/catalogue";
import { choiceNow } from "../state/choosing";
import { setHand } from "../state/hand";
import { keepMove, showKeeping } from "../state/satchel";
import { song } from "../state/song";
import { songBox } from "../state/stage";
import { drag } from "./drag";

/** What the stretch at hand is called until somebody gives it a name. */
function usualName(): string {
  const { catalogue, model } = song();
  const target = choiceNow()?.envelope.target;
  const found = catalogue && target ? findParameter(catalogue, model, target) : null;
  return found ? `From ${found.entry.name}` : "Kept";
}

const overPanel = (x: Px): boolean => x > (songBox()?.right ?? Number.POSITIVE_INFINITY);

/** Carries the chosen stretch into the panel at the right, where it is kept; its name is typed there. Fingers press. */
export function pressKeep(event: PointerEvent): void {
  if (event.pointerType === "touch") return;
  const [x0, y0] = [event.clientX, event.clientY];
  const name = usualName();
  const end = () => setHand({ carry: null });
  drag(event, {
    move: ({ dx, dy, moved }) => {
      const x = x0 + dx;
      const words = overPanel(x) ? "Keep it in the satchel" : "Drop it on the panel at the right";
      setHand({ carry: moved ? { x, y: y0 + dy, fault: null, words } : null });
    },
    drop: ({ dx, moved }) => {
      end();
      if (!moved || !overPanel(x0 + dx)) return;
      showKeeping();
      void keepMove(name, "");
    },
    cancel: end,
  });
}
