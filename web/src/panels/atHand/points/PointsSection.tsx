import type { EnvelopePart, ScaleEntry } from "../../../api/types";
import { removePoints } from "../../../gestures/points";
import { useChoice } from "../../../state/choice";
import { chooseMany, runsOf } from "../../../state/choosing";
import { edit } from "../../../state/edits";
import { tell } from "../../../state/notice";
import { useSong } from "../../../state/song";
import { useSayPosition } from "../../../table/strips/useSay";
import { Deed } from "../../../ui/Deed";
import { Do } from "../../../ui/Entry";
import { Fold } from "../../../ui/Fold";
import { Chosen } from "./Chosen";
import { Heights } from "./Heights";
import { InTime } from "./InTime";
import { Stretches } from "./Stretches";

const NONE: number[] = [];

/** What can be done with the points of an envelope; with those that are chosen first. */
export function PointsSection({ envelope, scale }: { envelope: EnvelopePart; scale: ScaleEntry }) {
  const chosen = useChoice((state) => (state.envelopeId === envelope.id ? state.chosen : NONE));
  const uneven = useSong((state) => state.uneven[envelope.id]);
  const runs = runsOf(chosen);
  const first = envelope.points[chosen[0]];
  const base = { envelope_id: envelope.id, runs };
  return (
    <div className="flex flex-col gap-2.5" data-testid="edit">
      <div>
        <Span envelope={envelope} chosen={chosen} />
        <ChooseDeeds envelope={envelope} chosen={chosen} />
      </div>
      {uneven?.length > 0 && (
        <p role="status" className="flex items-center gap-2 rounded-field bg-warning px-2 py-1 text-xs text-base-100">
          A fade starts a hair off the value before it.
          <button
            type="button"
            className="underline"
            onClick={() =>
              void edit("level_points", { envelope_id: envelope.id, runs: [[uneven[0], uneven[0]]], to: "before" })
            }
          >
            Make it level
          </button>
        </p>
      )}
      {chosen.length > 0 && <Chosen envelope={envelope} chosen={chosen} base={base} />}
      <div>
        {first && (
          <>
            <Fold id="edit-time" words="Time">
              <InTime base={base} several={chosen.length > 1} />
            </Fold>
            <Fold id="edit-level" words="Level">
              <Heights base={base} scale={scale} first={first} several={chosen.length > 1} />
            </Fold>
          </>
        )}
        <Fold id="edit-stretch" words="Stretch">
          <Stretches />
        </Fold>
      </div>
      <Apart envelope={envelope} chosen={chosen} />
    </div>
  );
}

function ChooseDeeds({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  const from = useChoice((state) => state.windowFrom);
  const all = envelope.points.map((_, i) => i);
  return (
    <div className="mt-1 flex w-28 gap-1" role="group" aria-label="Choose points">
      <Do words="All" title="All points (Ctrl A)" onDo={() => chooseMany(envelope.id, all, from)} />
      <Do words="None" off={chosen.length === 0} onDo={() => chooseMany(envelope.id, [], from)} />
    </div>
  );
}

/** What takes something away, or silences it. */
function Apart({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  const clear = async () => {
    const change = await edit("clear_envelope", { envelope_id: envelope.id });
    if (change) tell("done", `Done: ${change.words}`, true);
  };
  return (
    <div className="flex flex-wrap gap-1 border-t border-base-300 pt-2">
      <Deed
        rank="remove"
        words="Remove"
        title="Remove the chosen points (Delete)"
        off={chosen.length === 0}
        onDo={() => removePoints(envelope.id, chosen)}
      />
      <Deed
        rank="remove"
        words="Clear"
        title="Take out all points; the envelope stays"
        off={envelope.points.length === 0}
        onDo={() => void clear()}
      />
      <Deed
        rank="remove"
        words={envelope.on ? "Switch off" : "Switch on"}
        onDo={() => void edit("switch_envelope", { envelope_id: envelope.id, on: !envelope.on })}
      />
    </div>
  );
}

/** How many points are chosen, over which time and between which values. */
function Span({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  const span = useChoice((state) => state.span);
  const say = useSayPosition();
  const points = chosen.map((index) => envelope.points[index]).filter(Boolean);
  const values = points.map((point) => point.value);
  const textOf = (value: number) => points.find((point) => point.value === value)?.text ?? "";
  const ends = span ?? (points.length > 0 ? [points[0].tick, points[points.length - 1].tick] : null);
  if (!ends) return <p className="faint text-xs">no point chosen, of {envelope.points.length}</p>;
  return (
    <p className="faint text-xs" data-testid="choice-span">
      {points.length === 1 ? "1 point" : `${points.length} points`}, {say(ends[0])}
      {ends[1] > ends[0] && ` to ${say(ends[1])}`}
      {points.length > 0 &&
        ` · ${textOf(Math.min(...values))}${points.length > 1 ? ` to ${textOf(Math.max(...values))}` : ""}`}
    </p>
  );
}
