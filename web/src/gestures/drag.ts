import type { PointerEvent as ReactPointerEvent } from "react";
import type { Px } from "../api/types";
import { viewNow } from "../state/view";
import { scrollNearEdge } from "./edges";
import { severalFingers } from "./touches";

/** Where a hand has come since it pressed, and which keys it holds. */
export interface Reach {
  dx: Px;
  dy: Px;
  fine: boolean;
  free: boolean;
  copy: boolean;
  moved: boolean;
  /** When the hand was there, by the browser's clock. */
  at: number;
}

/** What a drag needs to know of the press that begins it. */
export type Press = Pick<
  ReactPointerEvent,
  "button" | "pointerType" | "pointerId" | "clientX" | "clientY" | "currentTarget" | "stopPropagation"
>;

export interface DragHandlers {
  move(reach: Reach): void;
  /** The one commit; `moved` is false for a press without a drag. */
  drop(reach: Reach): void;
  /** The one cancel: Escape, a second finger, or the system took the pointer away. */
  cancel(): void;
}

/** A hand that moves less than this has pressed, not dragged; a finger wanders further. */
const SLACK: Px = 4;
const FINGER_SLACK: Px = 10;
/** How much slower a fine drag is. */
const FINE = 0.1;

let finger = false;
/** Whether the drag that goes on is a finger's. */
export const byFinger = (): boolean => finger;

/** What goes on now, to be given up. */
const going = new Set<() => void>();
/** Ends every drag without a commit, as when a menu opens under a finger that rests. */
export function giveUpDrags(): void {
  for (const cancel of [...going]) cancel();
}

/**
 * Follows one pointer from its press to one drop or one cancel. Near an edge of the table the table scrolls along.
 * Returns whether it does; another button begins no drag, and no second finger, which ends the first one's too, unless
 * `fingers` says that each has a control of its own.
 */
export function drag(
  event: Press,
  handlers: DragHandlers,
  scrolls: "no" | "across" | "both" = "no",
  fingers: "one" | "each" = "one",
): boolean {
  const several = () => fingers === "one" && severalFingers();
  if (event.button !== 0 || (event.pointerType === "touch" && several())) return false;
  event.stopPropagation();
  const target = event.currentTarget as Element;
  finger = event.pointerType === "touch";
  const id = event.pointerId;
  const slack = finger ? FINGER_SLACK : SLACK;
  let [lastX, lastY] = [event.clientX, event.clientY];
  const reach: Reach = { dx: 0, dy: 0, fine: false, free: false, copy: false, moved: false, at: performance.now() };
  target.setPointerCapture?.(id);

  const keys = (source: PointerEvent | KeyboardEvent) =>
    Object.assign(reach, {
      fine: source.shiftKey || viewNow().ways.fine,
      free: source.altKey || viewNow().ways.free,
      copy: source.ctrlKey || source.metaKey,
      at: source.timeStamp,
    });

  const onMove = (source: PointerEvent) => {
    if (source.pointerId !== id) return;
    keys(source);
    const pace = reach.fine ? FINE : 1;
    reach.dx += (source.clientX - lastX) * pace;
    reach.dy += (source.clientY - lastY) * pace;
    [lastX, lastY] = [source.clientX, source.clientY];
    reach.moved ||= Math.hypot(reach.dx, reach.dy) > slack;
    if (reach.moved) handlers.move({ ...reach });
  };
  const onUp = (source: PointerEvent) => {
    if (source.pointerId !== id) return;
    end();
    reach.at = source.timeStamp;
    if (source.pointerType === "touch" && several()) handlers.cancel();
    else handlers.drop({ ...reach });
  };
  const onCancel = () => {
    end();
    handlers.cancel();
  };
  const onLost = (source: PointerEvent) => source.pointerId === id && onCancel();
  const onOther = (source: PointerEvent) =>
    fingers === "one" && source.pointerId !== id && source.pointerType === "touch" && onCancel();
  const onKey = (source: KeyboardEvent) => {
    if (source.key === "Escape") {
      source.stopPropagation();
      onCancel();
    } else if (reach.moved && source.key !== " ") {
      keys(source);
      handlers.move({ ...reach });
    }
  };

  /** Once a frame: what lies beyond the edge comes under the hand, which so goes further. */
  let frame = 0;
  const onFrame = () => {
    const [across, down] = reach.moved ? scrollNearEdge(lastX, lastY, scrolls === "both") : [0, 0];
    if (across !== 0 || down !== 0) {
      reach.dx += across;
      reach.dy += down;
      handlers.move({ ...reach });
    }
    frame = requestAnimationFrame(onFrame);
  };
  if (scrolls !== "no") frame = requestAnimationFrame(onFrame);

  function end() {
    going.delete(onCancel);
    cancelAnimationFrame(frame);
    window.removeEventListener("pointermove", onMove);
    window.removeEventListener("pointerup", onUp);
    window.removeEventListener("pointercancel", onLost);
    window.removeEventListener("pointerdown", onOther, true);
    window.removeEventListener("blur", onCancel);
    window.removeEventListener("keydown", onKey, true);
    window.removeEventListener("keyup", onKey, true);
    if (target.hasPointerCapture?.(id)) target.releasePointerCapture(id);
  }
  going.add(onCancel);
  window.addEventListener("pointermove", onMove);
  window.addEventListener("pointerup", onUp);
  window.addEventListener("pointercancel", onLost);
  window.addEventListener("pointerdown", onOther, true);
  window.addEventListener("blur", onCancel);
  window.addEventListener("keydown", onKey, true);
  window.addEventListener("keyup", onKey, true);
  return true;
}
