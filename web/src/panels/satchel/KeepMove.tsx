import { useState } from "react";
import { findParameter } from "../../state/catalogue";
import { useChoice } from "../../state/choice";
import { api } from "../../state/questions";
import { faultsSaid } from "../../state/queue";
import { findLike, keepable, keepMove } from "../../state/satchel";
import { useSong } from "../../state/song";
import { TextField } from "../../ui/Fields";

/** Puts the envelope at hand, or its chosen stretch, into the satchel under a name. */
export function KeepMove() {
  const [tags, setTags] = useState("");
  useChoice();
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const what = keepable();
  const envelope = what && model.envelopes[what.envelopeId];
  const name = envelope && catalogue && findParameter(catalogue, model, envelope.target)?.entry.name;
  if (!what || !envelope)
    return <p className="faint text-xs">Press the line of an envelope first; choose a span of it for a part of it.</p>;
  const keep = async (text: string): Promise<string | null> => {
    let fault: string | null = null;
    await keepMove(text, tags, (words) => {
      fault = words;
    });
    return fault;
  };
  const like = async () => {
    const move = await faultsSaid(() => api().keptMove(what.envelopeId, what.from, what.to, "like this"));
    if (move) await findLike(move);
  };
  const look = "w-full border-base-300 bg-base-200 pointer-coarse:h-11";
  return (
    <>
      <p className="faint text-xs">
        {what.part ? "The chosen stretch of" : "All of"} {name ?? "the envelope at hand"}
      </p>
      <label className="flex flex-col text-xs">
        <span className="faint">Tags</span>
        <input
          className={`input input-sm px-1.5 ${look}`}
          aria-label="Tags of the kept move"
          placeholder="apart by blanks"
          value={tags}
          onChange={(event) => setTags(event.target.value)}
          onKeyDown={(event) => event.stopPropagation()}
        />
      </label>
      <TextField named label="Keep it as" value="" hint="a name, then Enter" onCommit={keep} className={look} />
      <button type="button" className="btn btn-xs h-7 font-medium pointer-coarse:h-11" onClick={() => void like()}>
        Find moves like it
      </button>
    </>
  );
}
