import { reveal } from "./scrolling";
import { setView, viewNow } from "./view";

/** Unfolds a track in place, or folds it. */
export function toggleFold(trackId: string): void {
  const { unfolded } = viewNow();
  const open = unfolded.includes(trackId);
  setView({ trackId, unfolded: open ? unfolded.filter((id) => id !== trackId) : [...unfolded, trackId] });
  if (!open) reveal(trackId);
}

/** Unfolds a track, and brings all of it into view. */
export function unfold(trackId: string): void {
  if (viewNow().unfolded.includes(trackId)) reveal(trackId);
  else toggleFold(trackId);
}
