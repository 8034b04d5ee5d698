import type { EnvelopePart, Px, TrackPart } from "../api/types";
import { scaled } from "./text";

export const RULER_HEIGHT: Px = scaled(30);
/** Whether fingers are what most of it is pressed with. */
export const COARSE = matchMedia("(pointer: coarse)").matches;
export const FOLDED_HEIGHT: Px = scaled(COARSE ? 45 : 33);

/** Heights of the strips of an unfolded row. */
export interface Strips {
  material: Px;
  lane: Px;
  heard: Px;
}
const USUAL: Strips = { material: scaled(130), lane: scaled(80), heard: scaled(52) };

/** How much taller or lower than usual the strips of a row may be. */
export const LEAST_TALL = 0.7;
export const MOST_TALL = 6;
export const clampTall = (tall: number): number => Math.min(Math.max(tall, LEAST_TALL), MOST_TALL);

/** Room at the foot of the strip for how loud each note is. */
export const VELOCITY_HEIGHT: Px = scaled(30);
/** In the strip of a kit every sound has a row with its name, below the name of the track. */
export const KIT_TOP: Px = FOLDED_HEIGHT - 7;
const KIT_ROWS = 8;
const KIT_ROW: Px = scaled(12);
const KIT_MATERIAL: Px = KIT_TOP + 4 + KIT_ROWS * KIT_ROW + VELOCITY_HEIGHT;

const isKit = ({ devices }: TrackPart): boolean => devices.some(({ type }) => type === "drum-kit");

/** The strips of a row that is so many times as tall as usual. */
export const stripsOf = (tall = 1, track?: TrackPart): Strips => ({
  material: Math.max(Math.round(USUAL.material * tall), track && isKit(track) ? KIT_MATERIAL : 0),
  lane: Math.round(USUAL.lane * tall),
  heard: Math.round(USUAL.heard * tall),
});

/** Beside the name of an unfolded track stands which parameter it shows. */
export const SELECT_HEIGHT: Px = scaled(COARSE ? 44 : 24);

/** Regions keep their name free of curves; only there they can be dragged. */
export const NAME_HEIGHT: Px = scaled(18);

/** A carrier track has no knobs, so no lane. */
export const hasLanes = (track: TrackPart): boolean => track.kind !== "carrier";

/** Lanes a row shows besides the one in focus: shown ones, and while it is folded the pinned ones. */
export const moreLanes = (
  lanes: EnvelopePart[],
  unfolded: boolean,
  focus: string | null,
  shown: string[],
  pinned: string[],
): EnvelopePart[] =>
  lanes.filter((lane) =>
    unfolded
      ? lane.target !== focus && (shown.includes(lane.target) || pinned.includes(lane.target))
      : pinned.includes(lane.target),
  );

/** A row with the line under it. `regions`: whether the track may hold any. */
export function rowHeight(track: TrackPart, regions: boolean, unfolded: boolean, more: number, tall = 1): Px {
  const { material, lane, heard } = stripsOf(tall, track);
  if (!unfolded) return more * lane + FOLDED_HEIGHT;
  return more * lane + (regions ? material : 0) + (hasLanes(track) ? lane : 0) + heard + 1;
}
