import type { EnvelopePart } from "../../api/types";
import type { Placed } from "../../state/catalogue";
import { edit } from "../../state/edits";

/** Which of the two leads. */
const FADER_WORDS = { follow: "lane leads", trim: "fader trims" };

/** Whether a lane moves its fader, or the fader raises or lowers what the lane does, as a whole. */
export function FaderChoice({ lane, placed }: { lane: EnvelopePart; placed: Placed }) {
  if (lane.role !== "set" || placed.scale.set_only || placed.rests !== undefined) return <span className="grow" />;
  const now = lane.fader ?? "follow";
  return (
    <div className="join grow" role="group" aria-label={`Fader of ${placed.entry.name}`}>
      {(["follow", "trim"] as const).map((fader) => (
        <button
          key={fader}
          type="button"
          className={`btn join-item btn-xs grow pointer-coarse:h-10 ${now === fader ? "btn-secondary" : ""}`}
          aria-pressed={now === fader}
          title={
            fader === "follow"
              ? "The lane moves the fader"
              : "The fader raises or lowers what the lane does, as a whole"
          }
          onClick={() => now !== fader && void edit("set_fader", { envelope_id: lane.id, fader })}
        >
          {FADER_WORDS[fader]}
        </button>
      ))}
    </div>
  );
}
