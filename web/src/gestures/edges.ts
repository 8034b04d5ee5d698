import type { Px } from "../api/types";
import { songBox, tableBox } from "../state/stage";

/** How near an edge a hand must come for the table to scroll, and how far it then scrolls in a frame, at most. */
const NEAR: Px = 36;
const FASTEST: Px = 18;

/** The pull of an edge: 0 away from it, more the nearer, both edges counted. */
function pull(at: Px, start: Px, end: Px): Px {
  const under = start + NEAR - at;
  const over = at - (end - NEAR);
  if (under > 0) return -Math.min(under / NEAR, 1) * FASTEST;
  return over > 0 ? Math.min(over / NEAR, 1) * FASTEST : 0;
}

/** Scrolls the table when a hand is near its edge; returns by how much it did. */
export function scrollNearEdge(x: Px, y: Px, down: boolean): [across: Px, down: Px] {
  const [box, song] = [tableBox(), songBox()];
  if (!box || !song) return [0, 0];
  const [left, top] = [box.scrollLeft, box.scrollTop];
  box.scrollLeft += pull(x, song.left, song.right);
  if (down) box.scrollTop += pull(y, song.top, song.bottom);
  return [box.scrollLeft - left, box.scrollTop - top];
}
