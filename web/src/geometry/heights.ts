import type { EnvelopePart, Px, TrackPart } from "../api/types";
import { song } from "../state/store";

export const RULER_HEIGHT: Px = 30;
/** Heights of a folded row, and of the strips of an unfolded one. */
export const FOLDED_HEIGHT: Px = 33;
export const MATERIAL_HEIGHT: Px = 130;
export const LANE_HEIGHT: Px = 80;
export const HEARD_HEIGHT: Px = 52;
/** Regions keep their name free of curves; only there they can be dragged. */
export const NAME_HEIGHT: Px = 18;

export const holdsRegions = (track: TrackPart): boolean => (song().catalogue?.track_kinds[track.kind].holds.length ?? 0) > 0;

/** A carrier track has no knobs, so no lane. */
export const hasLanes = (track: TrackPart): boolean => track.kind !== "carrier";

/** Lanes a row shows besides the one in focus: shown ones, and while it is folded the pinned ones. */
export const moreLanes = (lanes: EnvelopePart[], unfolded: boolean, focus: string | null, shown: string[], pinned: string[]): EnvelopePart[] =>
  lanes.filter((lane) => (unfolded ? lane.target !== focus && (shown.includes(lane.target) || pinned.includes(lane.target)) : pinned.includes(lane.target)));

/** A row with the line under it. */
export const rowHeight = (track: TrackPart, unfolded: boolean, more: number): Px =>
  more * LANE_HEIGHT + (unfolded ? (holdsRegions(track) ? MATERIAL_HEIGHT : 0) + (hasLanes(track) ? LANE_HEIGHT : 0) + HEARD_HEIGHT + 1 : FOLDED_HEIGHT);
