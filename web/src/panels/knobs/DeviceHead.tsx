import { Ellipsis } from "lucide-react";
import { memo } from "react";
import type { Catalogue, TrackPart } from "../../api/types";
import { drag, type Press } from "../../gestures/drag";
import { holdable, whenHeld } from "../../gestures/hold";
import { isClip, type Owner, ownerInput } from "../../state/catalogue";
import { chosenNow } from "../../state/choice";
import { edit, editAndTell } from "../../state/edits";
import { showPresets } from "../../state/presets";
import { song, useSong } from "../../state/song";
import { type Deed, DeedMenu } from "../../ui/Menu";
import type { Carrying } from "./useCarrying";

type Device = TrackPart["devices"][number];

/** Types that may stand in the place of a device of a role on a kind of track. */
export function typesFor(catalogue: Catalogue, owner: Owner, role: string): [id: string, name: string][] {
  return Object.entries(catalogue.devices)
    .filter(([, type]) => type.role === role && (type.plays === null || type.plays === owner.kind))
    .map(([id, type]) => [id, type.name]);
}

interface Props {
  owner: Owner;
  device: Device;
  name: string;
  carrying: Carrying;
}

/** Whether a head stays as it is: while something is tried only the values of its chain differ. */
const alike = (a: Props, b: Props): boolean =>
  a.owner === b.owner ? a.device === b.device && a.name === b.name && a.carrying === b.carrying : tryingValues(a, b);

const chainOf = ({ devices }: Owner): string => (devices ?? []).map(({ id, type }) => `${id} ${type}`).join();

const tryingValues = (a: Props, b: Props): boolean =>
  song().preview !== null &&
  a.owner.id === b.owner.id &&
  a.device.id === b.device.id &&
  a.name === b.name &&
  chainOf(a.owner) === chainOf(b.owner);

/** The head of a card: it carries the device along the chain, and has its menu. */
export const DeviceHead = memo(function DeviceHead({ owner, device, name, carrying }: Props) {
  const catalogue = useSong((state) => state.catalogue);
  const role = catalogue?.devices[device.type]?.role ?? "effect";
  const move = (before: string | null) =>
    void edit("move_device", { ...ownerInput(owner), device_id: device.id, ...(before ? { before } : {}) });
  const carry = (event: Press) => {
    const start = event.clientX;
    const end = () => carrying.carry(null);
    drag(event, {
      move: ({ dx, moved }) => carrying.carry(moved ? start + dx : null),
      drop: ({ dx, moved }) => {
        end();
        if (moved) move(carrying.beforeAt(start + dx));
      },
      cancel: end,
    });
  };
  const carried = role === "effect" || role === "note-effect" || role === "macros";
  return (
    <div className="flex min-h-7 items-center pb-1">
      <h3
        className={`truncate pl-1 text-xs font-bold ${carried ? "cursor-grab select-none" : ""}`}
        title={carried ? "Drag it along the chain" : undefined}
        ref={holdable}
        onPointerDown={carried ? (event) => whenHeld(event, carry) : undefined}
      >
        {name}
      </h3>
      {role !== "channel" && catalogue && (
        <DeedMenu
          label={`${name} of ${owner.name}`}
          title="Move, replace or take out"
          look="card-menu"
          head={name}
          deeds={deedsOf(catalogue, owner, device, role, move)}
        >
          <Ellipsis size={14} aria-hidden="true" />
        </DeedMenu>
      )}
    </div>
  );
}, alike);

function deedsOf(
  catalogue: Catalogue,
  owner: Owner,
  device: Device,
  role: string,
  move: (before: string | null) => void,
): Deed[] {
  const devices = owner.devices ?? [];
  const ids = devices.map(({ id }) => id);
  const place = ids.indexOf(device.id);
  const alike = devices.map(({ type }) => (catalogue.devices[type]?.role ?? "effect") === role);
  const [first, last] = [alike.indexOf(true), alike.lastIndexOf(true)];
  const at = { ...ownerInput(owner), device_id: device.id };
  const along: Deed[] = [
    { id: "earlier", words: "Earlier in the chain", off: place <= first, act: () => move(ids[place - 1]) },
    { id: "later", words: "Later in the chain", off: place >= last, act: () => move(ids[place + 2] ?? null) },
  ];
  const others = typesFor(catalogue, owner, role).filter(([type]) => type !== device.type);
  return [
    { id: "presets", words: "Presets …", what: "use one, or keep this", act: () => showPresets(owner, device.id) },
    ...(role === "instrument" ? [] : along),
    ...(role === "effect" && !isClip(owner) ? intoClip(owner, device, place - first) : []),
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

/** Gives the first effects of a track, up to one, to the chosen clip of it. */
function intoClip(track: TrackPart, device: Device, before: number): Deed[] {
  const { regions, clips } = song().model;
  const region = regions[chosenNow().regionId ?? ""];
  const clip = region?.owner === `track/${track.id}` ? clips[region.clip_id] : undefined;
  if (!clip || clip.kind === "carrier") return [];
  return [
    {
      id: "into-clip",
      words: `Make it an effect of ${clip.name}`,
      what: before > 0 ? "with the effects before it; heard only while the clip sounds" : "heard only while it sounds",
      act: () => editAndTell("chain_to_clip", { track_id: track.id, device_id: device.id, clip_id: clip.id }),
    },
  ];
}
