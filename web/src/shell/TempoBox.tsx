import { useState } from "react";
import { barTicks, meterAt, positionText } from "../geometry/viewport";
import { editAndTell } from "../state/edits";
import { useSong } from "../state/song";
import { closeTempo, useTempoBox } from "../state/tempoBox";
import { Box } from "../ui/Box";
import { NumberField } from "../ui/Fields";

const SHAPES = ["straight", "curved", "ess"] as const;

/** From one tempo to another over the range, and back: two typed values. */
export function TempoBox() {
  const open = useTempoBox((state) => state.open);
  return open ? <Glide /> : null;
}

function Glide() {
  const head = useSong((state) => state.model.head);
  const { start_tick, end_tick } = head.range;
  const [from, setFrom] = useState(head.bpm);
  const [to, setTo] = useState(Math.max(10, Math.round(head.bpm * 0.8)));
  const [back, setBack] = useState(0);
  const [shape, setShape] = useState<(typeof SHAPES)[number]>("straight");
  const bar = barTicks(meterAt(head.meters, end_tick));
  const kept = (set: (wish: number) => void) => async (wish: number) => set(wish);
  const text = (tick: number) => positionText(head.meters, tick).replace(/\.0$/, "");
  const make = async () => {
    const back_ticks = Math.round(back * bar);
    const inputs = { from_tick: start_tick, to_tick: end_tick, from_bpm: from, to_bpm: to, shape, back_ticks };
    if (await editAndTell("glide_tempo", inputs)) closeTempo();
  };
  return (
    <Box title={`Tempo from ${text(start_tick)} to ${text(end_tick)}`} onClose={closeTempo}>
      <div className="grid grid-cols-2 gap-2">
        <NumberField label="From" unit="BPM" value={from} min={10} max={400} onCommit={kept(setFrom)} />
        <NumberField label="To" unit="BPM" value={to} min={10} max={400} onCommit={kept(setTo)} />
        <NumberField label="Back over" unit="bars" value={back} min={0} max={64} onCommit={kept(setBack)} />
        <label className="flex items-center gap-2 text-xs">
          <span className="faint">shape</span>
          <select
            className="select select-sm min-w-0 grow pointer-coarse:h-11"
            aria-label="Shape"
            value={shape}
            onChange={(event) => setShape(event.target.value as typeof shape)}
          >
            {SHAPES.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      </div>
      <p className="faint text-xs">
        After that it is what it was; 0 bars is at once. The range is set on the bar numbers.
      </p>
      <button type="button" className="btn btn-neutral pointer-coarse:h-11" onClick={() => void make()}>
        Let it go
      </button>
    </Box>
  );
}
