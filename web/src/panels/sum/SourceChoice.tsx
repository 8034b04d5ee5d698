import { clsx } from "clsx";
import type { EnvelopePart } from "../../api/types";
import { editAndTell, editAsking } from "../../state/edits";
import { LfoFields } from "./LfoFields";
import { LimitFields } from "./LimitFields";
import { useSettings } from "./useSettings";

/** Where what an envelope gives comes from, points that are drawn or an LFO; and between what it runs. */
export function SourceChoice({ envelope }: { envelope: EnvelopePart }) {
  const { source } = envelope;
  const found = useSettings(envelope.id);
  const envelope_id = envelope.id;
  const choices = [
    {
      words: "points",
      on: !source,
      title: "Turn the LFO into points, to draw on",
      take: () => editAsking("draw_lfo", { envelope_id }),
    },
    {
      words: "LFO",
      on: Boolean(source),
      title: "A wave that goes on by itself, in place of points",
      take: () => editAndTell("set_lfo", { envelope_id }),
    },
  ];
  return (
    <>
      <div className="join mt-2 w-full" role="group" aria-label="Where its values come from">
        {choices.map(({ words, on, title, take }) => (
          <button
            key={words}
            type="button"
            className={clsx("btn join-item btn-xs grow pointer-coarse:h-10", on && "btn-secondary")}
            aria-pressed={on}
            title={title}
            onClick={() => !on && void take()}
          >
            {words}
          </button>
        ))}
      </div>
      {source && <LfoFields envelope={envelope} lfo={source} found={found} />}
      <LimitFields envelope={envelope} found={found} />
    </>
  );
}
