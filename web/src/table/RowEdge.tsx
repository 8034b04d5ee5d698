import type { KeyboardEvent, PointerEvent } from "react";
import type { Px } from "../api/types";
import { clampTall, LEAST_TALL, MOST_TALL } from "../geometry/heights";
import { drag } from "../gestures/drag";
import { setView, useView, viewNow } from "../state/view";

/** What a key makes of a row, times as tall. */
const KEYS: Record<string, number> = { ArrowUp: 1 / 1.15, ArrowDown: 1.15 };

const setTall = (id: string, tall: number): void => setView({ tall: { ...viewNow().tall, [id]: clampTall(tall) } });

interface Props {
  /** Of the track whose row it is, or what else has a row. */
  id: string;
  name: string;
  /** How tall it is when nobody made it taller. */
  usual: Px;
}

/** The lower edge of an unfolded row: dragged down it makes the row taller. A double press makes it as usual. */
export function RowEdge({ id, name, usual }: Props) {
  const tall = useView((state) => state.tall[id] ?? 1);
  const press = (event: PointerEvent) => {
    const take = ({ dy }: { dy: number }) => setTall(id, tall + dy / usual);
    drag(event, { move: take, drop: (reach) => reach.moved && take(reach), cancel: () => setTall(id, tall) });
  };
  const onKey = (event: KeyboardEvent) => {
    const factor = KEYS[event.key];
    if (!factor) return;
    event.preventDefault();
    event.stopPropagation();
    setTall(id, tall * factor);
  };
  return (
    <div
      role="slider"
      tabIndex={-1}
      aria-label={`Height of ${name}`}
      aria-orientation="vertical"
      aria-valuemin={LEAST_TALL * 100}
      aria-valuemax={MOST_TALL * 100}
      aria-valuenow={Math.round(tall * 100)}
      aria-valuetext={`${Math.round(tall * 100)} %`}
      title="Drag to make the row taller; a double press makes it as usual"
      className="row-edge"
      data-testid={`edge-${id}`}
      onPointerDown={press}
      onDoubleClick={() => setTall(id, 1)}
      onKeyDown={onKey}
    />
  );
}
