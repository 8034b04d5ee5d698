import { Plus } from "lucide-react";
import { makeClip } from "../gestures/clips";
import { transportNow } from "../state/transport";

const COARSE = matchMedia("(pointer: coarse)").matches;

/** In the row of a track of notes that has no clip yet: the way to the first one, where the playhead stands. */
export function EmptyStrip({ trackId, name }: { trackId: string; name: string }) {
  return (
    <div className="lets-through absolute inset-x-0 top-0 z-[5]">
      <button
        type="button"
        className="empty-strip btn btn-ghost btn-xs"
        aria-label={`Make a clip on ${name}`}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => void makeClip(trackId, transportNow().playhead)}
      >
        <Plus size={14} aria-hidden="true" /> {COARSE ? "Tap" : "Press"} to make a clip
      </button>
    </div>
  );
}
