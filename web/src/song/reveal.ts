import { RULER_HEIGHT } from "../unfold/heights";

/** Scrolls down, or up, until all of a track's row is in view. */
export function reveal(trackId: string): void {
  requestAnimationFrame(() => {
    const box = document.querySelector('[data-testid="table"]');
    const row = document.querySelector(`[data-testid="track-${trackId}"]`)?.getBoundingClientRect();
    if (!box || !row) return;
    const { top, bottom } = box.getBoundingClientRect();
    const under = row.bottom - bottom + 4;
    const over = top + RULER_HEIGHT - row.top;
    if (under > 0) box.scrollTop += Math.min(under, -over);
    else if (over > 0) box.scrollTop -= over;
  });
}
