import type { KeyboardEvent, PointerEvent } from "react";
import type { TrackPart } from "../api/types";
import { clampTall, LEAST_TALL, MOST_TALL, rowHeight } from "../geometry/heights";
import { drag } from "../gestures/drag";
import { holdsRegions } from "../state/holds";
import { setView, useView, viewNow } from "../state/view";

/** What a key makes of a row, times as tall. */
const KEYS: Record<string, number> = { ArrowUp: 1 / 1.15, ArrowDown: 1.15 };

const setTall = (trackId: string, tall: number): void =>
  setView({ tall: { ...viewNow().tall, [trackId]: clampTall(tall) } });

/** The lower edge of an unfolded row: dragged down it makes the row taller. A double press makes it as usual. */
export function RowEdge({ track }: { track: TrackPart }) {
  const tall = useView((state) => state.tall[track.id] ?? 1);
  const press = (event: PointerEvent) => {
    const usual = rowHeight(track, holdsRegions(track), true, 0);
    const take = ({ dy }: { dy: number }) => setTall(track.id, tall + dy / usual);
    drag(event, { move: take, drop: (reach) => reach.moved && take(reach), cancel: () => setTall(track.id, tall) });
  };
  const onKey = (event: KeyboardEvent) => {
    const factor = KEYS[event.key];
    if (!factor) return;
    event.preventDefault();
    event.stopPropagation();
    setTall(track.id, tall * factor);
  };
  return (
    <div
      role="slider"
      tabIndex={-1}
      aria-label={`Height of ${track.name}`}
      aria-orientation="vertical"
      aria-valuemin={LEAST_TALL * 100}
      aria-valuemax={MOST_TALL * 100}
      aria-valuenow={Math.round(tall * 100)}
      aria-valuetext={`${Math.round(tall * 100)} %`}
      title="Drag to make the row taller; a double press makes it as usual"
      className="row-edge"
      data-testid={`edge-${track.id}`}
      onPointerDown={press}
      onDoubleClick={() => setTall(track.id, 1)}
      onKeyDown={onKey}
    />
  );
}
