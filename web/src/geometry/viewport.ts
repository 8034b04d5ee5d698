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

export const beatTicks = (meter: Meter): Ticks => meter.beat_ticks;
export const barTicks = (meter: Meter): Ticks => meter.bar_ticks;

/** A time signature for all of a clip, by which its own time is counted. */
export function ownMeter({ beats, unit }: { beats: number; unit: number }): Meter {
  const beat_ticks = (960 * 4) / unit;
  return { bar: 1, tick: 0, beats, unit: unit as Meter["unit"], beat_ticks, bar_ticks: beats * beat_ticks };
}

/** The time signature at a tick, and the one after it. */
function around(meters: Meter[], tick: Ticks): [Meter, Meter | undefined] {
  let i = meters.length - 1;
  while (i > 0 && meters[i].tick > tick) i--;
  return [meters[i], meters[i + 1]];
}

/** The time signature of a list that holds at a tick. */
export const meterAt = (meters: Meter[], tick: Ticks): Meter => around(meters, tick)[0];

/** The tick at which the bar begins that a tick lies in. */
export function barStart(meters: Meter[], tick: Ticks): Ticks {
  const meter = meterAt(meters, tick);
  return meter.tick + Math.floor((tick - meter.tick) / meter.bar_ticks) * meter.bar_ticks;
}

/** The nearest line of a grid. With the time signatures of a song, lines are counted from where each begins. */
export function snapTick(tick: Ticks, grid: Ticks, meters?: Meter[]): Ticks {
  if (grid <= 0) return Math.round(tick);
  if (!meters || meters.length === 1) return Math.round(tick / grid) * grid;
  const [meter, next] = around(meters, tick);
  const step = grid % meters[0].bar_ticks === 0 ? (grid / meters[0].bar_ticks) * meter.bar_ticks : grid;
  const line = meter.tick + Math.round((tick - meter.tick) / step) * step;
  return next ? Math.min(line, next.tick) : line;
}

/** Lines inside a stretch, counted from where each time signature begins; `stepOf` says how far apart they lie. */
export function linesIn(meters: Meter[], from: Ticks, to: Ticks, stepOf: (meter: Meter) => Ticks): [Ticks, Meter][] {
  return meters.flatMap((meter, i) => {
    const end = Math.min(to, meters[i + 1]?.tick ?? Number.POSITIVE_INFINITY);
    const step = stepOf(meter);
    const first = meter.tick + Math.max(0, Math.ceil((from - meter.tick) / step)) * step;
    const count = Math.max(0, Math.ceil((end - first) / step));
    return Array.from({ length: count }, (_, at): [Ticks, Meter] => [first + at * step, meter]);
  });
}

/** bar.beat.tick, counted from 1.1.0. */
export function positionText(meters: Meter[], tick: Ticks): string {
  const whole = Math.max(0, Math.round(tick));
  const meter = meterAt(meters, whole);
  const bars = Math.floor((whole - meter.tick) / barTicks(meter));
  const rest = whole - meter.tick - bars * barTicks(meter);
  const beat = Math.floor(rest / beatTicks(meter));
  return `${meter.bar + bars}.${beat + 1}.${rest - beat * beatTicks(meter)}`;
}
