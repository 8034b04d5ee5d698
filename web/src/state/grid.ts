import type { Px, Ticks } from "../api/types";
import { barTicks, snapTick } from "../geometry/viewport";
import { song } from "./song";
import { type View, viewNow } from "./view";

/** Fractions of a whole note, their triplets and dotted ones. `bar` and `beat` follow the meter. */
export const GRIDS: [name: string, ticks: Ticks | "bar" | "beat"][] = [
  ["off", 0],
  ["bar", "bar"],
  ["beat", "beat"],
  ["1/2", 1920],
  ["1/4", 960],
  ["1/4 dotted", 1440],
  ["1/4 triplet", 640],
  ["1/8", 480],
  ["1/8 dotted", 720],
  ["1/8 triplet", 320],
  ["1/16", 240],
  ["1/16 dotted", 360],
  ["1/16 triplet", 160],
  ["1/32", 120],
  ["1/64", 60],
];
const NEAREST: Px = 14;

/** The grid of a view: what was chosen, or the finest one whose lines still stand apart. */
export function gridOf(
  { grid, gridAuto, pxPerTick }: Pick<View, "grid" | "gridAuto" | "pxPerTick">,
  bar: Ticks,
): Ticks {
  if (!gridAuto) return grid;
  return [60, 120, 240, 480, 960].find((ticks) => ticks * pxPerTick >= NEAREST) ?? bar;
}

export const gridNow = (): Ticks => gridOf(viewNow(), barTicks(song().model.head.meters[0]));

/** The nearest line of a grid of the song. */
export const snapSong = (tick: Ticks, grid: Ticks): Ticks => snapTick(tick, grid, song().model.head.meters);
