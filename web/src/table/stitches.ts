import type { Corners, Px, Window } from "../api/types";
import { cornerBefore, heightAt } from "../geometry/corners";
import type { Band } from "../geometry/viewport";
import { valueToY } from "../geometry/viewport";

/** Stitches stand this far apart, and are this large. */
const STEP: Px = 5;
const DOT: Px = 2;

/** Draws what windows show of a curve as a row of stitches; `left` is the song's pixel at the canvas' edge. */
export function drawStitches(
  pen: CanvasRenderingContext2D,
  corners: Corners,
  windows: Window[],
  pxPerTick: number,
  left: Px,
  width: Px,
  band: Band,
  top: Px,
): void {
  if (corners.length === 0) return;
  for (const [from, to, position, rate] of windows) {
    const start = Math.max(Math.ceil((from * pxPerTick) / STEP) * STEP, Math.floor(left / STEP) * STEP);
    const end = Math.min(to * pxPerTick, left + width);
    let place = Math.max(cornerBefore(corners, position + (start / pxPerTick - from) * rate), 0);
    for (let x = start; x < end; x += STEP) {
      const tick = position + (x / pxPerTick - from) * rate;
      while (place * 2 + 2 < corners.length && corners[place * 2 + 2] <= tick) place++;
      const value = heightAt(corners.slice(place * 2, place * 2 + 4), tick) ?? 0;
      pen.fillRect(x - left - DOT / 2, top + valueToY(band, value) - DOT / 2, DOT, DOT);
    }
  }
}
