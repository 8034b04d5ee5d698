import { clsx } from "clsx";
import { useState } from "react";
import type { EnvelopePart } from "../../../api/types";
import { editAndTell, editAsking } from "../../../state/edits";
import { FollowFields } from "./FollowFields";
import { LfoFields } from "./LfoFields";
import { LimitFields } from "./LimitFields";
import { useSettings } from "./useSettings";

/** Where the values of an envelope come from: points, an LFO, or what it follows; and between what it runs. */
export function SourceChoice({ envelope }: { envelope: EnvelopePart }) {
  const { source, followed } = envelope;
  const found = useSettings(envelope.id);
  const [wish, setWish] = useState<string | null>(null);
  const envelope_id = envelope.id;
  const follows = !source && (Boolean(followed?.as_made) || wish === envelope_id);
  const choices = [
    {
      words: "points",
      on: !source && !follows,
      title: source ? "Turn the LFO into points, to draw on" : "Points that are drawn",
      take: async () => {
        setWish(null);
        if (source) await editAsking("draw_lfo", { envelope_id });
      },
    },
    {
      words: "LFO",
      on: Boolean(source),
      title: "A wave that goes on by itself, in place of points",
      take: () => editAndTell("set_lfo", { envelope_id }),
    },
    {
      words: "follow",
      on: follows,
      title: "How loud something is, or its notes, in place of what is drawn",
      take: () => setWish(envelope_id),
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
      {(follows || (wish === envelope_id && source)) && <FollowFields envelope={envelope} />}
      <LimitFields envelope={envelope} found={found} />
    </>
  );
}
