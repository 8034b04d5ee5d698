import { clsx } from "clsx";
import type { EnvelopePart } from "../../../api/types";
import { shapeOf } from "../../../gestures/bends";
import { runsOf } from "../../../state/choosing";
import { edit } from "../../../state/edits";
import { NumberField } from "../../../ui/Fields";
import { made, nameOf, SHAPE_NAMES, type Shape, ShapeIcon } from "../../../ui/shapes";

/** Note lengths a count can be locked to. */
const LOCKS: [name: string, ticks: number | null][] = [
  ["free", null],
  ["1/1", 3840],
  ["1/2", 1920],
  ["1/4", 960],
  ["1/8", 480],
  ["1/8 triplet", 320],
  ["1/16", 240],
  ["1/16 triplet", 160],
  ["1/32", 120],
];

/** The shape of the segments after the chosen points, and its numbers. */
export function ShapeNumbers({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  const leaving = chosen.filter((index) => index + 1 < envelope.points.length);
  if (leaving.length === 0) return null;
  const shape = shapeOf(envelope.points[leaving[0]]);
  const give = (next: Shape) =>
    edit("shape_segments", { envelope_id: envelope.id, runs: runsOf(leaving), shape: next });
  return (
    <div className="flex flex-col gap-1.5">
      <div className="shape-row" role="group" aria-label="Shape after the chosen points">
        {SHAPE_NAMES.map((name) => (
          <button
            key={name}
            type="button"
            className={clsx("by-choice", nameOf(shape) === name && "hue bg-base-300")}
            aria-label={name}
            aria-pressed={nameOf(shape) === name}
            title={name}
            onClick={() => void give(made(name, shape))}
          >
            <ShapeIcon name={name} />
          </button>
        ))}
      </div>
      {(shape.shape === "curved" || shape.shape === "ess") && (
        <NumberField
          label="Bend"
          unit=""
          value={shape.curve}
          min={-1}
          max={1}
          onCommit={(curve) => give({ ...shape, curve })}
        />
      )}
      {shape.shape === "cycle" && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          {!shape.note_ticks && (
            <NumberField
              label="Count"
              unit="cycles"
              value={shape.cycles}
              min={0.05}
              max={1024}
              onCommit={(cycles) => give({ ...shape, cycles })}
            />
          )}
          <NumberField
            label="Skew"
            unit="%"
            value={Math.round((shape.skew ?? 0.5) * 100)}
            min={0}
            max={100}
            onCommit={(skew) => give({ ...shape, skew: skew / 100 })}
          />
          <label className="flex items-center gap-1 text-xs">
            <span className="faint">a cycle lasts</span>
            <select
              className="select select-xs w-24"
              value={shape.note_ticks ?? ""}
              onChange={(event) =>
                void give({ ...shape, note_ticks: event.target.value ? Number(event.target.value) : null })
              }
            >
              {LOCKS.map(([name, ticks]) => (
                <option key={name} value={ticks ?? ""}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        </div>
      )}
    </div>
  );
}
