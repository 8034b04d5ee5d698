import { useState } from "react";
import type { EditInputs, EnvelopePart } from "../api/types";
import { edit, previewer } from "../song/actions";

type Shape = EditInputs["shape_segment"]["shape"];
const SHAPES = ["hold", "straight", "curved"] as const;
/** What a segment takes when it is made curved without saying how much. */
const FIRST_BEND = 0.4;

/** The shape of the segment after a point, and how much it bends. */
export function SegmentShape({ envelope, index }: { envelope: EnvelopePart; index: number }) {
  const point = envelope.points[index];
  const [wish, setWish] = useState<number | null>(null);
  const [trial, setTrial] = useState<ReturnType<typeof previewer> | null>(null);
  const curve = wish ?? point.curve ?? 0;
  const inputs = (shape: Shape) => ({ envelope_id: envelope.id, index, shape });
  const bent = (amount: number): Shape => ({ shape: "curved", curve: amount });

  const drop = () => {
    if (wish === null) return;
    trial?.end(true);
    setTrial(null);
    void edit("shape_segment", inputs(bent(wish))).then(() => setWish(null));
  };
  return (
    <div className="mt-1.5">
      <div className="join w-full" role="group" aria-label="Shape of the segment after this point">
        {SHAPES.map((shape) => (
          <button
            key={shape}
            type="button"
            className={`btn join-item btn-xs grow ${point.shape === shape ? "btn-accent" : ""}`}
            aria-pressed={point.shape === shape}
            onClick={() => point.shape !== shape && void edit("shape_segment", inputs(shape === "curved" ? bent(FIRST_BEND) : { shape }))}
          >
            {shape}
          </button>
        ))}
      </div>
      {point.shape === "curved" && (
        <label className="mt-1.5 flex items-center gap-2 text-[11.5px]">
          bend
          <input
            type="range"
            className="range range-xs grow"
            min={-1}
            max={1}
            step={0.01}
            value={curve}
            aria-label="Bend of the segment"
            onChange={(event) => {
              const amount = Number(event.target.value);
              const running = trial ?? previewer();
              setTrial(running);
              setWish(amount);
              running.ask("shape_segment", inputs(bent(amount)));
            }}
            onPointerUp={drop}
            onKeyUp={drop}
            onBlur={drop}
          />
          <span className="w-9 text-right">{curve.toFixed(2)}</span>
        </label>
      )}
    </div>
  );
}
