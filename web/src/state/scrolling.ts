import type { Px, Ticks } from "../api/types";
import { clampTall, FOLDED_HEIGHT, RULER_HEIGHT, rowHeight } from "../geometry/heights";
import { MAX_PX_PER_TICK, MIN_PX_PER_TICK } from "../geometry/viewport";
import { chosenNow } from "./choice";
import { holdsRegions } from "./holds";
import { song } from "./song";
import { roomForSong, rowBox, tableBox } from "./stage";
import { transportNow } from "./transport";
import { setView, viewNow } from "./view";

/** Room left at the edges of what is brought into view. */
const MARGIN: Px = 14;

/** Where the table stands; the store hears of it once scrolling rests, so that a frame of scrolling costs little. */
let pending: { tick: Ticks; timer: number } | null = null;

export function rest(tick: Ticks): void {
  clearTimeout(pending?.timer);
  pending = { tick, timer: window.setTimeout(() => setView({ scrollTick: tick }), 150) };
}

/** Scrolling by hand while it plays ends the following, until the next play or a press on Follow. */
export function stay(): void {
  if (transportNow().playing && viewNow().follow) setView({ follow: false });
}

/** Zooms about a place; the tick there stays where it is. */
export function zoom(factor: number, x = 300): void {
  const { pxPerTick } = viewNow();
  clearTimeout(pending?.timer);
  const scrollTick = pending?.tick ?? viewNow().scrollTick;
  pending = null;
  const next = Math.min(Math.max(pxPerTick * factor, MIN_PX_PER_TICK), MAX_PX_PER_TICK);
  setView({ pxPerTick: next, scrollTick: Math.max(0, scrollTick + x / pxPerTick - x / next) });
}

/** What buttons and keys zoom about: what is chosen, else the playhead. */
function anchor(): Ticks {
  const { model, windows } = song();
  const { regionIds, envelopeId, chosen, span, windowFrom } = chosenNow();
  const region = model.regions[regionIds[0] ?? ""];
  const envelope = envelopeId ? model.envelopes[envelopeId] : undefined;
  const ticks = span ?? chosen.map((index) => envelope?.points[index]?.tick ?? 0);
  if (envelope && ticks.length > 0) {
    const own = Object.values(windows)
      .flatMap((entry) => entry[envelope.id] ?? [])
      .find((entry) => entry[0] === windowFrom) ?? [0, 0, 0, 1];
    return own[0] + ((ticks[0] + ticks[ticks.length - 1]) / 2 - own[2]) / own[3];
  }
  return region ? region.start_tick + region.length_ticks / 2 : transportNow().playhead;
}

/** Zooms about what is at hand, which stays in sight, or comes into it. */
export function zoomAtHand(factor: number): void {
  const tick = anchor();
  const room = roomForSong();
  const { pxPerTick } = viewNow();
  const x = tick * pxPerTick - (tableBox()?.scrollLeft ?? 0);
  const next = Math.min(Math.max(pxPerTick * factor, MIN_PX_PER_TICK), MAX_PX_PER_TICK);
  clearTimeout(pending?.timer);
  pending = null;
  const at = x < 0 || x > room ? room / 2 : x;
  setView({ pxPerTick: next, scrollTick: Math.max(0, tick - at / next) });
}

/** Shares the height of the view among the unfolded rows, so that nothing stays empty under them. */
export function fitRows(): void {
  const box = tableBox();
  const { unfolded } = viewNow();
  const { tracks } = song().model;
  const open = tracks.filter((track) => unfolded.includes(track.id));
  if (!box || open.length === 0) return;
  const usual = open.map((track) => rowHeight(track, holdsRegions(track), true, 0));
  const folded = (tracks.length - open.length) * FOLDED_HEIGHT;
  const share = clampTall((box.clientHeight - RULER_HEIGHT - folded) / usual.reduce((sum, height) => sum + height, 0));
  setView({ tall: { ...viewNow().tall, ...Object.fromEntries(open.map((track) => [track.id, Math.max(1, share)])) } });
}

/** Brings the chosen stretch, or the range that repeats, into view from edge to edge, and shares the height. */
export function fit(): void {
  fitRows();
  const { model, windows } = song();
  const { span, envelopeId, windowFrom } = chosenNow();
  const { start_tick, end_tick } = model.head.range;
  let [from, to] = [start_tick, end_tick];
  if (span && envelopeId) {
    const all = Object.values(windows).flatMap((entry) => entry[envelopeId] ?? []);
    const own = all.find((entry) => entry[0] === windowFrom) ?? [0, 0, 0, 1];
    [from, to] = span.map((tick) => own[0] + (tick - own[2]) / own[3]);
  }
  const wanted = (roomForSong() - 2 * MARGIN) / Math.max(1, to - from);
  const pxPerTick = Math.min(Math.max(wanted, MIN_PX_PER_TICK), MAX_PX_PER_TICK);
  clearTimeout(pending?.timer);
  pending = null;
  setView({ pxPerTick, scrollTick: Math.max(0, from - MARGIN / pxPerTick) });
  const box = tableBox();
  if (box) box.scrollLeft = Math.max(0, from * pxPerTick - MARGIN);
}

/** Rows far from the view are not drawn: about where one stands, from the top of the table. */
function aboutTop(trackId: string): Px {
  const { unfolded, tall } = viewNow();
  const { tracks } = song().model;
  const before = tracks.slice(
    0,
    tracks.findIndex(({ id }) => id === trackId),
  );
  return before.reduce(
    (sum, track) => sum + rowHeight(track, holdsRegions(track), unfolded.includes(track.id), 0, tall[track.id]),
    0,
  );
}

/** So often a row that is not drawn yet is gone towards. */
const TRIES = 6;

/** Scrolls down, or up, until all of a track's row is in view. */
export function reveal(trackId: string, tries = TRIES): void {
  requestAnimationFrame(() => {
    const [box, row] = [tableBox(), rowBox(trackId)];
    if (!box) return;
    if (!row) {
      box.scrollTop = aboutTop(trackId);
      if (tries > 0) reveal(trackId, tries - 1);
      return;
    }
    const { top, bottom } = box.getBoundingClientRect();
    const under = row.bottom - bottom + 4;
    const over = top + RULER_HEIGHT - row.top;
    if (under > 0) box.scrollTop += Math.min(under, -over);
    else if (over > 0) box.scrollTop -= over;
  });
}

/** Scrolls sideways until a stretch of the song is in view. */
export function showTime(from: Ticks, to: Ticks): void {
  const box = tableBox();
  if (!box) return;
  const { pxPerTick } = viewNow();
  const [left, right] = [from * pxPerTick, to * pxPerTick];
  const hidden = right < box.scrollLeft + MARGIN || left > box.scrollLeft + roomForSong() - MARGIN;
  if (hidden) box.scrollLeft = Math.max(0, left - 2 * MARGIN);
}
