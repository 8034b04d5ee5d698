import { X } from "lucide-react";
import { type KeyboardEvent, type MouseEvent, memo, type PointerEvent, useCallback, useEffect, useState } from "react";
import type { Head } from "../api/types";
import { positionText, tickToX, xToTick } from "../geometry/viewport";
import { drag } from "../gestures/drag";
import { holdable, whenHeld } from "../gestures/hold";
import { restOnThing, thingMenu } from "../gestures/menus";
import { player } from "../sound/player";
import { edit, editAndTell } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { useSong } from "../state/song";
import { useView } from "../state/view";
import { setWishes, useWishes } from "../state/wishes";
import { TextField } from "../ui/Fields";

type Marker = NonNullable<Head["markers"]>[number];
const NONE: Marker[] = [];

/** Named places on the bar numbers: a press goes there, a drag moves them, a double press names them otherwise. */
export const Markers = memo(function Markers() {
  const markers = useSong(({ model }) => model.head.markers ?? NONE);
  const [named, setNamed] = useState<string | null>(null);
  const wished = useWishes((state) => state.marker);
  const name = useCallback((id: string) => {
    setNamed(id);
    setWishes({ marker: null, field: "marker-name", back: () => setNamed(null) });
  }, []);
  useEffect(() => {
    if (wished !== null) name(wished);
  }, [wished, name]);
  return markers.map((marker) => (
    <Flag
      key={marker.id}
      marker={marker}
      named={named === marker.id}
      onName={(on) => (on ? name(marker.id) : setNamed(null))}
    />
  ));
});

interface Props {
  marker: Marker;
  named: boolean;
  onName: (on: boolean) => void;
}

function Flag({ marker, named, onName }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const meters = useSong((state) => state.model.head.meters);
  const [moved, setMoved] = useState<number | null>(null);
  const to = (tick: number) => void editAndTell("set_marker", { marker_id: marker.id, tick: Math.max(0, tick) });
  const press = (event: PointerEvent) => {
    const goal = (dx: number, free: boolean) =>
      Math.max(0, snapSong(marker.tick + xToTick({ pxPerTick }, dx), free ? 1 : Math.max(gridNow(), 240)));
    // A finger takes hold of it; its swipe scrolls, its tap goes there.
    whenHeld(event, (held) =>
      drag(held, {
        move: ({ dx, free }) => setMoved(goal(dx, free)),
        drop: ({ dx, free, moved: far }) => {
          setMoved(null);
          if (far) to(goal(dx, free));
          else if (event.pointerType !== "touch") player.seek(marker.tick);
        },
        cancel: () => setMoved(null),
      }),
    );
  };
  const tap = ({ nativeEvent }: MouseEvent) =>
    (nativeEvent as globalThis.PointerEvent).pointerType === "touch" && player.seek(marker.tick);
  const key = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (step) to(marker.tick + step * Math.max(gridNow(), 240));
    else if (event.key === "Delete") void edit("remove_marker", { marker_id: marker.id });
    else if (event.key === "F2") onName(true);
    else if (event.key === "Enter") player.seek(marker.tick);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const left = tickToX({ pxPerTick }, moved ?? marker.tick);
  if (named)
    return (
      <span className="marker-name" style={{ left }}>
        <TextField
          label={`Name of the marker ${marker.name}`}
          field="marker-name"
          value={marker.name}
          className="w-28 border-base-300 bg-base-100"
          onCommit={(name) => edit("set_marker", { marker_id: marker.id, name }).then(() => onName(false))}
          onLeave={() => onName(false)}
        />
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label={`Remove the marker ${marker.name}`}
          onClick={() => void edit("remove_marker", { marker_id: marker.id })}
        >
          <X size={12} />
        </button>
      </span>
    );
  return (
    <button
      type="button"
      className="marker"
      style={{ left }}
      title={`${marker.name}: press to go there, drag to move, press twice to name`}
      aria-label={`Marker ${marker.name} at ${positionText(meters, marker.tick)}`}
      ref={holdable}
      onPointerDown={(event) => {
        restOnThing(event, { kind: "marker", markerId: marker.id });
        press(event);
      }}
      onContextMenu={(event) => thingMenu(event, { kind: "marker", markerId: marker.id })}
      onClick={tap}
      onDoubleClick={() => onName(true)}
      onKeyDown={key}
    >
      {marker.name}
    </button>
  );
}
