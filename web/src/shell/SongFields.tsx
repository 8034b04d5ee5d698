import { meterAt } from "../geometry/viewport";
import { setMeter } from "../gestures/songTime";
import { edit } from "../state/edits";
import { useSong } from "../state/song";
import { useTransport } from "../state/transport";
import { NumberField, TextField } from "../ui/Fields";

/** The time signature where the playhead stands. */
export function MeterField() {
  const meters = useSong((state) => state.model.head.meters);
  const bar = useTransport(({ playhead }) => meterAt(meters, playhead).bar);
  const { beats, unit } = meters.find((meter) => meter.bar === bar) ?? meters[0];
  return (
    <TextField
      label={meters.length > 1 ? `Meter from bar ${bar}` : "Meter"}
      value={`${beats}/${unit}`}
      onCommit={(text) => setMeter(text, bar)}
      className="input-ghost w-12 text-center"
    />
  );
}

export function TempoField() {
  const bpm = useSong((state) => state.model.head.bpm);
  return (
    <NumberField
      showLabel={false}
      label="Tempo"
      unit="BPM"
      value={bpm}
      min={10}
      max={400}
      onCommit={(wish) => edit("set_tempo", { tick: 0, bpm: wish })}
    />
  );
}
