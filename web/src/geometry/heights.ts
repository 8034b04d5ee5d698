import type { EnvelopePart, Px, TrackPart } from "../api/types";

export const RULER_HEIGHT: Px = 30;
/** Heights of a folded row, and of the strips of an unfolded one. */
export const FOLDED_HEIGHT: Px = 33;
export const MATERIAL_HEIGHT: Px = 130;
export const LANE_HEIGHT: Px = 80;
export const HEARD_HEIGHT: Px = 52;
/** Regions keep their name free of curves; only there they can be dragged. */
export const NAME_HEIGHT: Px = 18;

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
export const rowHeight = (track: TrackPart, regions: boolean, unfolded: boolean, more: number): Px =>
  more * LANE_HEIGHT +
  (unfolded ? (regions ? MATERIAL_HEIGHT : 0) + (hasLanes(track) ? LANE_HEIGHT : 0) + HEARD_HEIGHT + 1 : FOLDED_HEIGHT);
