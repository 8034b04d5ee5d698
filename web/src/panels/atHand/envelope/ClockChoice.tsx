import type { EnvelopePart, Ticks } from "../../../api/types";
import { barTicks, beatTicks } from "../../../geometry/viewport";
import { edit } from "../../../state/edits";
import { useSong } from "../../../state/song";
import { NumberField } from "../../../ui/Fields";

const CLOCKS = {
  each_loop: "each loop",
  once: "once, over all",
  stretched: "stretched to fit",
  own_length: "own length",
} as const;
type Clock = keyof typeof CLOCKS;

/** How the time of a clip envelope runs while its clip repeats. */
export function ClockChoice({ envelope }: { envelope: EnvelopePart }) {
  const meter = useSong((state) => state.model.head.meters[0]);
  const clip = useSong(({ model }) => model.clips[envelope.owner.slice(5)]);
  const meeting = useSong((state) => (envelope.clock === "own_length" ? state.meetings?.[envelope.id] : undefined));
  const beat = beatTicks(meter);
  const bars = (ticks: Ticks) => Math.round((ticks / barTicks(meter)) * 100) / 100;
  const own = envelope.own_length_ticks ?? clip?.length_ticks ?? beat;
  const set = (clock: Clock, length: Ticks | null = envelope.own_length_ticks ?? null) =>
    edit("set_clock", {
      envelope_id: envelope.id,
      clock,
      own_length_ticks: clock === "own_length" ? (length ?? own) : length,
    });
  return (
    <>
      <div className="mt-1 grid grid-cols-2 gap-1" role="group" aria-label="How its time runs">
        {(Object.keys(CLOCKS) as Clock[]).map((clock) => (
          <button
            key={clock}
            type="button"
            className={`btn btn-xs pointer-coarse:h-10 ${envelope.clock === clock ? "btn-secondary" : ""}`}
            aria-pressed={envelope.clock === clock}
            onClick={() => envelope.clock !== clock && void set(clock)}
          >
            {CLOCKS[clock]}
          </button>
        ))}
      </div>
      {envelope.clock === "own_length" && (
        <NumberField
          label="Own length"
          unit="beats"
          value={own / beat}
          min={1 / 16}
          max={4096}
          onCommit={(beats) => set("own_length", Math.max(1, Math.round(beats * beat)))}
        />
      )}
      {meeting && (
        <p className="faint text-xs" data-testid="meeting">
          It meets the loop again after {meeting / beat} beats ({bars(meeting)} bars).
        </p>
      )}
    </>
  );
}
