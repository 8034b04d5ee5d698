import { clsx } from "clsx";
import { useState } from "react";
import type { HandPass, Px, Take, Ticks } from "../../api/types";
import { drag, type Press } from "../../gestures/drag";
import { gridNow, snapSong } from "../../state/grid";
import { count, type TakePart } from "./parts";

const [WIDTH, HEIGHT]: Px[] = [176, 26];

interface Props {
  laps: Take[];
  parts: HandPass["parts"];
  /** One lap, or with null all of them. */
  onChoose: (parts: TakePart[] | null) => void;
  /** A stretch of a lap, drawn over it. */
  onDraw: (part: TakePart) => void;
}

/**
 * The laps of a pass, one under the other on one axis of time: a press takes one, a stretch drawn over one takes just
 * that.
 */
export function Laps({ laps, parts, onChoose, onDraw }: Props) {
  const from = Math.min(...laps.map((lap) => lap.from_tick));
  const to = Math.max(...laps.map((lap) => lap.to_tick), from + 1);
  if (laps.length < 2) return null;
  return (
    <div className="flex flex-col gap-1" role="group" aria-label="Laps">
      {laps.map((lap) => (
        <Row key={lap.lap} lap={lap} from={from} to={to} parts={parts} onDraw={onDraw} onChoose={onChoose} />
      ))}
      <button
        type="button"
        className={clsx("btn btn-xs self-start pointer-coarse:h-11", parts === null ? "btn-secondary" : "btn-ghost")}
        aria-pressed={parts === null}
        title="Every lap as it was played, later ones over earlier ones"
        onClick={() => onChoose(null)}
      >
        all laps, one over the other
      </button>
    </div>
  );
}

interface RowProps extends Omit<Props, "laps"> {
  lap: Take;
  from: Ticks;
  to: Ticks;
}

function Row({ lap, from, to, parts, onChoose, onDraw }: RowProps) {
  const [drawn, setDrawn] = useState<[Ticks, Ticks] | null>(null);
  const x = (tick: Ticks): Px => ((Math.min(Math.max(tick, from), to) - from) / (to - from)) * WIDTH;
  const tickAt = (px: Px): Ticks =>
    snapSong(from + (Math.min(Math.max(px, 0), WIDTH) / WIDTH) * (to - from), gridNow());
  const mine = parts?.filter((part) => part.lap === lap.lap) ?? [];
  const only = mine.length > 0 && mine.length === parts?.length;
  const take = () => onChoose([{ lap: lap.lap, from_tick: 0, to_tick: Math.max(to, lap.to_tick) }]);
  const press = (event: Press) => {
    const left = event.currentTarget.getBoundingClientRect().left;
    const start = event.clientX - left;
    const stretch = (dx: Px): [Ticks, Ticks] => {
      const [a, b] = [tickAt(start), tickAt(start + dx)];
      return a < b ? [a, b] : [b, a];
    };
    drag(event, {
      move: ({ dx, moved }) => setDrawn(moved ? stretch(dx) : null),
      drop: ({ dx, moved }) => {
        setDrawn(null);
        const [a, b] = stretch(dx);
        if (moved && b > a) onDraw({ lap: lap.lap, from_tick: a, to_tick: b });
        else if (!moved) take();
      },
      cancel: () => setDrawn(null),
    });
  };
  return (
    <div className="flex items-center gap-2">
      <button
        type="button"
        className={clsx("btn btn-xs w-12 pointer-coarse:h-11", only ? "btn-secondary" : "btn-ghost")}
        aria-pressed={only}
        title={`Only lap ${lap.lap + 1}: ${count(lap.samples, "sample")}`}
        onClick={take}
      >
        lap {lap.lap + 1}
      </button>
      <svg
        className="take-lap"
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={`Lap ${lap.lap + 1}; draw over it to take just that stretch`}
        data-testid={`lap-${lap.lap}`}
        onPointerDown={press}
      >
        {mine.map((part) => (
          <rect
            key={part.from_tick}
            x={x(part.from_tick)}
            width={Math.max(2, x(part.to_tick) - x(part.from_tick))}
            y={0}
            height={HEIGHT}
            className="take-part"
          />
        ))}
        {drawn && <rect x={x(drawn[0])} width={x(drawn[1]) - x(drawn[0])} y={0} height={HEIGHT} className="span" />}
        {lap.strokes.map((stroke) => (
          <polyline key={stroke[0]} points={pointsOf(stroke, x)} className="solid-line" />
        ))}
      </svg>
    </div>
  );
}

function pointsOf(stroke: number[], x: (tick: Ticks) => Px): string {
  const list: string[] = [];
  for (let i = 0; i < stroke.length; i += 2)
    list.push(`${x(stroke[i]).toFixed(1)},${(2 + (1 - stroke[i + 1]) * (HEIGHT - 4)).toFixed(1)}`);
  return list.join(" ");
}
