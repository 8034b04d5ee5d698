import { clsx } from "clsx";
import type { EnvelopePart } from "../api/types";
import { edit } from "../state/edits";
import { useSong } from "../state/song";

/** The mark of an envelope: stitched in a clip, a line on a lane; a press switches it off and on. */
export function MoveMark({ envelope, name }: { envelope: EnvelopePart; name: string }) {
  const [kind, id] = envelope.owner.split("/");
  const clip = useSong(({ model }) => (kind === "clip" ? model.clips[id]?.name : null));
  const rests = useSong(({ rested }) => rested.includes(envelope.id));
  const words = `${name} ${clip ? `in ${clip}` : "on the lane"}`;
  return (
    <button
      type="button"
      className="move-mark"
      aria-pressed={envelope.on}
      aria-label={`${words}: ${envelope.on ? "on" : "off"}${rests ? ", rests" : ""}`}
      title={`${words} ${envelope.on ? "is on; a press switches it off" : "is off; a press switches it on"}`}
      onClick={() => void edit("switch_envelope", { envelope_id: envelope.id, on: !envelope.on })}
    >
      <i className={clsx(clip ? "stitch-mark" : "line-mark", (!envelope.on || rests) && "off-line")} />
    </button>
  );
}
