import type { Meter, Normalised, Px, Ticks } from "../api/types";

/** The one place where ticks and pixels, values and pixels meet. */
export interface Viewport {
  pxPerTick: number;
}

export const MIN_PX_PER_TICK = 0.002;
export const MAX_PX_PER_TICK = 0.4;

export const tickToX = (view: Viewport, tick: Ticks): Px => tick * view.pxPerTick;
export const xToTick = (view: Viewport, x: Px): Ticks => x / view.pxPerTick;

/** A strip of some height whose values run from `low` at its foot to `high` at its top, with a margin for handles. */
export interface Band {
  height: Px;
  low: number;
  high: number;
}
export const BAND_MARGIN: Px = 9;

export const valueToY = (band: Band, value: Normalised): Px =>
  BAND_MARGIN + ((band.high - value) / (band.high - band.low)) * (band.height - 2 * BAND_MARGIN);

export const yToValue = (band: Band, y: Px): Normalised => {
  const value = band.high - ((y - BAND_MARGIN) / (band.height - 2 * BAND_MARGIN)) * (band.high - band.low);
  return Math.min(Math.max(value, band.low), band.high);
};

export const bandFor = (role: string, height: Px): Band => ({ height, low: role === "shift" ? -1 : 0, high: 1 });

export const snapTick = (tick: Ticks, grid: Ticks): Ticks =>
  grid > 0 ? Math.round(tick / grid) * grid : Math.round(tick);

export const beatTicks = (meter: Meter): Ticks => meter.beat_ticks;
export const barTicks = (meter: Meter): Ticks => meter.bar_ticks;

/** bar.beat.tick, counted from 1.1.0. */
export function positionText(meter: Meter, tick: Ticks): string {
  const whole = Math.max(0, Math.round(tick));
  const bar = Math.floor(whole / barTicks(meter));
  const rest = whole - bar * barTicks(meter);
  const beat = Math.floor(rest / beatTicks(meter));
  return `${bar + 1}.${beat + 1}.${rest - beat * beatTicks(meter)}`;
}
