import { edit } from "../state/edits";
import { useSong } from "../state/song";
import { NumberField, TextField } from "../ui/Fields";
export function MeterField() {
  const { beats, unit } = useSong((state) => state.model.head.meter);
  const commit = async (text: string) => {
    const [b, u] = text.split("/").map(Number);
    return edit("set_meter", { beats: b, unit: u as 4 });
  };
  return (
    <TextField label="Meter" value={`${beats}/${unit}`} onCommit={commit} className="input-ghost w-12 text-center" />
  );
}

export function TempoField() {
  const bpm = useSong((state) => state.model.head.tempo[0].bpm);
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
