import type { Ticks } from "../api/types";
import { RULER_HEIGHT } from "../geometry/heights";
import { setView, song } from "../state/store";
import { MAX_PX_PER_TICK, MIN_PX_PER_TICK } from "../geometry/viewport";

/** Where the table stands; the store hears of it once scrolling rests, so that a frame of scrolling costs little. */
let standing: { tick: Ticks; timer: number } | null = null;

export function rest(tick: Ticks): void {
  clearTimeout(standing?.timer);
  standing = { tick, timer: window.setTimeout(() => setView({ scrollTick: tick }), 150) };
}

/** Zooms about a place; the tick there stays where it is. */
export function zoom(factor: number, x = 300): void {
  const { pxPerTick } = song().view;
  clearTimeout(standing?.timer);
  const scrollTick = standing?.tick ?? song().view.scrollTick;
  standing = null;
  const next = Math.min(Math.max(pxPerTick * factor, MIN_PX_PER_TICK), MAX_PX_PER_TICK);
  setView({ pxPerTick: next, scrollTick: Math.max(0, scrollTick + x / pxPerTick - x / next) });
}

/** Brings the chosen stretch, or the range that repeats, into view from edge to edge. */
export function fit(): void {
  const { model, span, envelopeId, windows, windowFrom } = song();
  const { start_tick, end_tick } = model.head.range;
  const box = document.querySelector('[data-testid="table"]');
  const room = (box?.clientWidth ?? 900) - 200;
  let [from, to] = [start_tick, end_tick];
  if (span && envelopeId) {
    const own = Object.values(windows).flatMap((entry) => entry[envelopeId] ?? []).find((entry) => entry[0] === windowFrom) ?? [0, 0, 0, 1];
    [from, to] = span.map((tick) => own[0] + (tick - own[2]) / own[3]);
  }
  const pxPerTick = Math.min(Math.max(room / Math.max(1, to - from), MIN_PX_PER_TICK), MAX_PX_PER_TICK);
  clearTimeout(standing?.timer);
  standing = null;
  setView({ pxPerTick, scrollTick: Math.max(0, from - 10 / pxPerTick) });
  if (box) box.scrollLeft = Math.max(0, from * pxPerTick - 10);
}

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
