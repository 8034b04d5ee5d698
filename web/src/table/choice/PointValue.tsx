import type { EnvelopePart } from "../../api/types";
import { bandFor } from "../../geometry/viewport";
import { runsOf } from "../../state/choosing";
import { editTyped } from "../../state/edits";
import { useShown } from "../../state/useShown";
import { ChoiceValue } from "./ChoiceValue";

/** The value of the chosen points. One is set; several go along with the first, or are all set to what is typed. */
export function PointValue({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  const { model } = useShown();
  const first = envelope.points[chosen[0]];
  const tried = model.envelopes[envelope.id]?.points[chosen[0]] ?? first;
  if (!first) return null;
  const { low, high } = bandFor(envelope.role, 1);
  const base = { envelope_id: envelope.id, runs: runsOf(chosen) };
  return (
    <ChoiceValue
      key={`${envelope.id} ${chosen}`}
      label="Value of the chosen points"
      text={tried.text ?? ""}
      value={first.value}
      min={low}
      max={high}
      step={0.001}
      change="shift_points"
      inputs={(value) => ({ ...base, ticks: 0, value: value - first.value })}
      onType={(value) => editTyped("enter_points", { ...base, value })}
    />
  );
}
