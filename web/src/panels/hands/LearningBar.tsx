import { controlWords } from "../../gestures/midi/reader";
import { findParameter } from "../../state/catalogue";
import { endLearning, learnt, useLearning } from "../../state/mappings";
import { useSong } from "../../state/song";
import { DEEDS } from "./deeds";

/** Over the song while a control is being learnt: what is to be done next. */
export function LearningBar() {
  const { on, control, device, target } = useLearning();
  const model = useSong((state) => state.model);
  const catalogue = useSong((state) => state.catalogue);
  const known = target && catalogue ? findParameter(catalogue, model, target)?.entry.name : null;
  if (!on) return null;
  return (
    <div className="learning" role="status">
      {control ? (
        <>
          <span>
            <b>{controlWords(control)}</b> of {device}: touch the knob it is to turn, or
          </span>
          <select
            className="select select-sm text-base-content"
            aria-label="What it does instead"
            value=""
            onChange={(event) => choose(event.target.value)}
          >
            <option value="">choose …</option>
            {Array.from({ length: 8 }, (_, i) => (
              <option key={i} value={`slot ${i + 1}`}>
                place {i + 1} of the eight
              </option>
            ))}
            {Object.entries(DEEDS).map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </>
      ) : (
        <span>
          {known ? `Turn or press the control that is to turn ${known}.` : "Turn or press a control of the hardware."}
        </span>
      )}
      <button type="button" className="btn btn-sm" onClick={endLearning}>
        Stop learning
      </button>
    </div>
  );
}

function choose(value: string): void {
  if (value.startsWith("slot ")) learnt({ slot: Number(value.slice(5)) });
  else if (value) learnt({ deed: value as keyof typeof DEEDS });
}
