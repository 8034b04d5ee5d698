import { X } from "lucide-react";
import type { KeyboardEvent } from "react";
import { memo } from "react";
import type { Meter } from "../api/types";
import { barTicks, meterAt, tickToX } from "../geometry/viewport";
import { setMeter } from "../gestures/songTime";
import { edit } from "../state/edits";
import { typeSignature, useSignature } from "../state/signature";
import { useSong } from "../state/song";
import { useView } from "../state/view";
import { TextField } from "../ui/Fields";

export const meterText = ({ beats, unit }: Meter): string => `${beats}/${unit}`;

/** Time signatures on the bar numbers, where a song has several: a press changes one. */
export const Signatures = memo(function Signatures() {
  const meters = useSong(({ model }) => model.head.meters);
  const typed = useSignature((state) => state.bar);
  const pxPerTick = useView((state) => state.pxPerTick);
  const others = meters.length > 1 ? meters.filter(({ bar }) => bar !== typed) : [];
  return (
    <>
      {others.map((meter) => (
        <button
          key={meter.bar}
          type="button"
          className="signature"
          style={{ left: tickToX({ pxPerTick }, meter.tick) }}
          title={`${meterText(meter)} from bar ${meter.bar}: press to change it`}
          aria-label={`Meter ${meterText(meter)} from bar ${meter.bar}`}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={(event) => {
            event.stopPropagation();
            typeSignature(meter.bar);
          }}
          onKeyDown={(event) => {
            if (event.key === "Delete" && meter.bar > 1) void edit("remove_meter", { bar: meter.bar });
          }}
        >
          {meterText(meter)}
        </button>
      ))}
      {typed !== null && <Typed bar={typed} meters={meters} />}
    </>
  );
});

function Typed({ bar, meters }: { bar: number; meters: Meter[] }) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const section = meters.filter((meter) => meter.bar <= bar).at(-1) ?? meters[0];
  const left = tickToX({ pxPerTick }, section.tick + (bar - section.bar) * barTicks(section));
  const begins = section.bar === bar && bar > 1;
  const leave = (event: KeyboardEvent) => {
    if (event.key !== "Escape" && event.key !== "Enter") return;
    setTimeout(() => typeSignature(null));
  };
  return (
    <span
      className="marker-name"
      style={{ left }}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDownCapture={leave}
    >
      <TextField
        label={`Meter from bar ${bar}`}
        value={meterText(meterAt(meters, section.tick))}
        field="signature"
        className="w-16 border-base-300 bg-base-100"
        onCommit={(text) => setMeter(text, bar)}
      />
      {begins && (
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label={`Take the meter of bar ${bar} out`}
          onClick={() => {
            typeSignature(null);
            void edit("remove_meter", { bar });
          }}
        >
          <X size={12} />
        </button>
      )}
    </span>
  );
}
