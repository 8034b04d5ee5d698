import { type KeyboardEvent, type PointerEvent, useState } from "react";
import type { EnvelopePart, Px, RegionPart, Ticks, Window } from "../../api/types";
import { beatTicks, snapTick, tickToX, xToTick } from "../../geometry/viewport";
import { drag, type Reach } from "../../gestures/drag";
import { edit } from "../../state/edits";
import { gridNow } from "../../state/grid";
import { previewer } from "../../state/previewer";
import { song, useSong } from "../../state/song";
import { useView } from "../../state/view";

interface Props {
  envelope: EnvelopePart;
  regions: RegionPart[];
  windows: Window[];
  height: Px;
  name: string;
}

/**
 * The end of an envelope with a length of its own, to be dragged, in every region; and where it meets its loop again.
 */
export function OwnLength({ envelope, regions, windows, height, name }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const [trial, setTrial] = useState<Ticks | null>(null);
  const meter = useSong((state) => state.model.head.meters[0]);
  const clip = useSong((state) => state.model.clips[envelope.owner.slice(5)]);
  const known = useSong((state) => state.marks);
  const tried = useSong((state) => state.preview?.marks);
  const meets = { ...known, ...tried };
  const own: Ticks = trial ?? envelope.own_length_ticks ?? clip?.length_ticks ?? beatTicks(meter);
  const mine = regions.filter((region) => region.clip_id === clip?.id);
  const x = (tick: Ticks): Px => tickToX({ pxPerTick }, tick);

  const set = (length: Ticks) => ({
    envelope_id: envelope.id,
    clock: "own_length" as const,
    own_length_ticks: Math.max(song().catalogue?.shortest_ticks ?? 1, length),
  });
  const press = (event: PointerEvent) => {
    const attempt = previewer();
    const wish = (reach: Reach) => {
      const step = reach.free ? 0 : gridNow() || 1;
      return Math.max(snapTick(own + xToTick({ pxPerTick }, reach.dx), step), step || 1);
    };
    drag(event, {
      move: (reach) => {
        setTrial(wish(reach));
        attempt.ask("set_clock", set(wish(reach)));
      },
      drop: (reach) => {
        attempt.end(reach.moved);
        if (reach.moved) void edit("set_clock", set(wish(reach))).then(() => setTrial(null));
      },
      cancel: () => {
        setTrial(null);
        attempt.end(false);
      },
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const side = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!side) return;
    event.preventDefault();
    event.stopPropagation();
    void edit("set_clock", set(own + side * (event.shiftKey ? gridNow() || 60 : beatTicks(meter))));
  };
  const beats = Math.round((own / beatTicks(meter)) * 100) / 100;
  return (
    <g>
      {mine.map((region) => {
        const end = region.start_tick + region.length_ticks;
        const first = windows.find(
          (window) => window[0] >= region.start_tick && window[0] < end && window[0] - window[2] + own <= end,
        );
        const ends = first ? first[0] - first[2] + own : null;
        const marks = meets[region.id]?.[envelope.id] ?? [];
        return (
          <g key={region.id}>
            {marks.map((tick) => (
              <g key={tick} data-testid={`meets-${envelope.id}`}>
                <title>Here {name} and the loop begin together again</title>
                <path d={`M${x(tick)} 0V${height}`} stroke="var(--hue)" strokeWidth={1.4} strokeDasharray="1 3" />
                <path d={`M${x(tick)} 3l4.5 4.5l-4.5 4.5l-4.5 -4.5z`} fill="var(--hue)" />
              </g>
            ))}
            {ends !== null && (
              <g
                transform={`translate(${x(ends)} 0)`}
                className="held"
                style={{ cursor: "ew-resize", touchAction: "none" }}
                role="slider"
                tabIndex={-1}
                aria-label={`Length of ${name}`}
                aria-valuemin={0}
                aria-valuenow={beats}
                aria-valuetext={`${beats} beats`}
                data-testid={`own-length-${envelope.id}`}
                onPointerDown={press}
                onKeyDown={onKey}
              >
                <title>Drag: how long the move is before it begins again ({beats} beats)</title>
                <path d={`M0 0V${height}`} stroke="var(--hue)" strokeWidth={1.2} />
                <rect x={-3.5} y={height - 15} width={7} height={14} rx={2.5} className="edge" />
                <rect x={-9} y={height - 30} width={18} height={30} fill="transparent" />
                {trial !== null && (
                  <text x={6} y={12} fontSize={12} fill="currentColor">
                    {beats} beats
                  </text>
                )}
              </g>
            )}
          </g>
        );
      })}
    </g>
  );
}
