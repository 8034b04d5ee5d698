import type { TrackPart } from "../api/types";
import { song } from "./song";

/** Whether regions may lie on a track. */
export const holdsRegions = (track: TrackPart): boolean =>
  (song().catalogue?.track_kinds[track.kind].holds.length ?? 0) > 0;
