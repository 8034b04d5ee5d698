import type { Px, TrackPart } from "../api/types";

export const RULER_HEIGHT: Px = 30;
/** Heights of a folded row, and of the strips of an unfolded one. */
export const FOLDED_HEIGHT: Px = 33;
export const MATERIAL_HEIGHT: Px = 130;
export const LANE_HEIGHT: Px = 80;
export const HEARD_HEIGHT: Px = 52;
/** Regions keep their name free of curves; only there they can be dragged. */
export const NAME_HEIGHT: Px = 18;

export const holdsRegions = (track: TrackPart): boolean => track.kind === "notes" || track.kind === "audio";

/** A row with the line under it. */
export const rowHeight = (track: TrackPart, unfolded: boolean): Px =>
  unfolded ? (holdsRegions(track) ? MATERIAL_HEIGHT : 0) + LANE_HEIGHT + HEARD_HEIGHT + 1 : FOLDED_HEIGHT;
