import { Ellipsis } from "lucide-react";
import type { PointerEvent } from "react";
import type { Catalogue, TrackPart } from "../../api/types";
import { drag } from "../../gestures/drag";
import { edit, editAndTell } from "../../state/edits";
import { showPresets } from "../../state/presets";
import { useSong } from "../../state/song";
import { type Deed, DeedMenu } from "../../ui/Menu";

type Device = TrackPart["devices"][number];

/** Types that may stand in the place of a device of a role on a kind of track. */
export function typesFor(catalogue: Catalogue, track: TrackPart, role: string): [id: string, name: string][] {
  return Object.entries(catalogue.devices)
    .filter(([, type]) => type.role === role && (role !== "instrument" || type.plays === track.kind))
    .map(([id, type]) => [id, type.name]);
}

interface Props {
  track: TrackPart;
  device: Device;
  name: string;
  /** The device a card dropped at a place of the screen comes before; null for the end of the chain. */
  beforeAt: (x: number) => string | null;
  onCarry: (x: number | null) => void;
}

/** The head of a card: it carries the device along the chain, and has its menu. */
export function DeviceHead({ track, device, name, beforeAt, onCarry }: Props) {
  const catalogue = useSong((state) => state.catalogue);
  const role = catalogue?.devices[device.type]?.role ?? "effect";
  const move = (before: string | null) =>
    void edit("move_device", { track_id: track.id, device_id: device.id, ...(before ? { before } : {}) });
  const press = (event: PointerEvent) => {
    // A finger scrolls; it moves a device by its menu.
    if (event.pointerType === "touch") return;
    const start = event.clientX;
    const end = () => onCarry(null);
    drag(event, {
      move: ({ dx, moved }) => onCarry(moved ? start + dx : null),
      drop: ({ dx, moved }) => {
        end();
        if (moved) move(beforeAt(start + dx));
      },
      cancel: end,
    });
  };
  const carried = role === "effect";
  return (
    <div className="flex min-h-7 items-center pb-1">
      <h3
        className={`truncate pl-1 text-xs font-bold ${carried ? "cursor-grab select-none" : ""}`}
        title={carried ? "Drag it along the chain" : undefined}
        onPointerDown={carried ? press : undefined}
      >
        {name}
      </h3>
      {role !== "channel" && catalogue && (
        <DeedMenu
          label={`${name} of ${track.name}`}
          title="Move, replace or take out"
          look="card-menu"
          head={name}
          deeds={deedsOf(catalogue, track, device, role, move)}
        >
          <Ellipsis size={14} aria-hidden="true" />
        </DeedMenu>
      )}
    </div>
  );
}

function deedsOf(
  catalogue: Catalogue,
  track: TrackPart,
  device: Device,
  role: string,
  move: (before: string | null) => void,
): Deed[] {
  const ids = track.devices.map(({ id }) => id);
  const place = ids.indexOf(device.id);
  const first = catalogue.devices[track.devices[0]?.type]?.role === "instrument" ? 1 : 0;
  const at = { track_id: track.id, device_id: device.id };
  const along: Deed[] = [
    { id: "earlier", words: "Earlier in the chain", off: place <= first, act: () => move(ids[place - 1]) },
    { id: "later", words: "Later in the chain", off: place >= ids.length - 2, act: () => move(ids[place + 2] ?? null) },
  ];
  const others = typesFor(catalogue, track, role).filter(([type]) => type !== device.type);
  return [
    { id: "presets", words: "Presets …", what: "use one, or keep this", act: () => showPresets(track.id, device.id) },
    ...(role === "effect" ? along : []),
    {
      id: "out",
      words: "Take out",
      what: "what moved it waits in its clips and lanes",
      act: () => editAndTell("remove_device", at),
    },
    ...others.map(
      ([type, name]): Deed => ({
        id: `as-${type}`,
        words: `${name} in its place`,
        act: () => editAndTell("replace_device", { ...at, type }),
      }),
    ),
  ];
}
