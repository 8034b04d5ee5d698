import type { Px, Ticks } from "../api/types";
import { RULER_HEIGHT } from "../geometry/heights";
import { xToTick } from "../geometry/viewport";
import { viewNow } from "./view";

/**
 * What stands where on the screen: the table and its rows say so themselves, so that nobody searches the page for
 * them.
 */
let table: HTMLElement | null = null;
let headerWidth: Px = 0;
const rows = new Map<string, HTMLElement>();

export interface Place {
  trackId: string;
  tick: Ticks;
}

export function setTable(element: HTMLElement | null, header: Px): void {
  table = element;
  headerWidth = header;
}

let tempoRow: HTMLElement | null = null;
export const setTempoRow = (element: HTMLElement | null): void => {
  tempoRow = element;
};

/** The tick at a place of the screen, where the tempo's own row is; null beside it. */
export function tempoTickAt(x: Px, y: Px): Ticks | null {
  const box = tempoRow?.getBoundingClientRect();
  if (!box || y < box.top || y >= box.bottom || x < timeLeft(box)) return null;
  return Math.round(xToTick(viewNow(), x - timeLeft(box)));
}

/** The box that scrolls, null while no song is on the screen. */
export const tableBox = (): HTMLElement | null => table;
export const rowBox = (trackId: string): DOMRect | undefined => rows.get(trackId)?.getBoundingClientRect();

/** How wide the song's own part of the view is, right of the headers. */
export const roomForSong = (): Px => Math.max(0, (table?.clientWidth ?? 0) - headerWidth);

/** The song's own part of the table on the screen: right of the headers, under the bar numbers. */
export function songBox(): { left: Px; right: Px; top: Px; bottom: Px } | null {
  const box = table?.getBoundingClientRect();
  return box
    ? { left: box.left + headerWidth, right: box.right, top: box.top + RULER_HEIGHT, bottom: box.bottom }
    : null;
}

/** A ref for the row of a track. */
export const rowRef =
  (trackId: string) =>
  (element: HTMLElement | null): void => {
    if (element) rows.set(trackId, element);
    else rows.delete(trackId);
  };

const timeLeft = (box: DOMRect): Px => box.left + headerWidth;
const drawnRows = (): [string, DOMRect][] => [...rows].map(([id, row]) => [id, row.getBoundingClientRect()]);

/** The track whose row lies at a height of the screen. */
export const trackAt = (y: Px): string | undefined =>
  drawnRows().find(([, box]) => y >= box.top && y < box.bottom)?.[0];

/** The track and the tick at a place of the screen, null beside the song. */
export function placeAt(x: Px, y: Px): Place | null {
  const found = drawnRows().find(([, box]) => y >= box.top && y < box.bottom);
  return found ? { trackId: found[0], tick: Math.round(xToTick(viewNow(), x - timeLeft(found[1]))) } : null;
}

/** The tick at a place across, also above or below all rows; 0 while there are none. */
export function tickAtX(x: Px): Ticks {
  const row = drawnRows()[0];
  return row ? Math.round(xToTick(viewNow(), x - timeLeft(row[1]))) : 0;
}

/** The rows a box on the screen touches, each with the stretch of time it covers there. */
export function rowsIn(box: {
  left: Px;
  top: Px;
  width: Px;
  height: Px;
}): { trackId: string; from: Ticks; to: Ticks }[] {
  return drawnRows()
    .filter(([, row]) => row.bottom >= box.top && row.top <= box.top + box.height)
    .map(([trackId, row]) => {
      const tick = (x: Px) => xToTick(viewNow(), x - timeLeft(row));
      return { trackId, from: tick(box.left), to: tick(box.left + box.width) };
    });
}
