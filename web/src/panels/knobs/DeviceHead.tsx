import { Ellipsis } from "lucide-react";
import { memo } from "react";
import type { TrackPart } from "../../api/types";
import { CommandMenu } from "../../commands/CommandMenu";
import { drag, type Press } from "../../gestures/drag";
import { holdable, whenHeld } from "../../gestures/hold";
import { restOnThing, thingMenu } from "../../gestures/menus";
import { chainId, type Owner, ownerInput } from "../../state/catalogue";
import { edit } from "../../state/edits";
import type { Subject } from "../../state/menu";
import { song, useSong } from "../../state/song";
import type { Carrying } from "./useCarrying";

type Device = TrackPart["devices"][number];

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
  const subject: Subject = { kind: "device", chain: chainId(owner), deviceId: device.id };
  const carried = role === "effect" || role === "note-effect" || role === "macros";
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: its menu is reached by the button too
    <div
      className="flex min-h-7 items-center pb-1"
      onContextMenu={(event) => role !== "channel" && thingMenu(event, subject)}
    >
      <h3
        className={`truncate pl-1 text-xs font-bold ${carried ? "cursor-grab select-none" : ""}`}
        title={carried ? "Drag it along the chain" : undefined}
        ref={holdable}
        onPointerDown={(event) => {
          if (role !== "channel") restOnThing(event, subject);
          if (carried) whenHeld(event, carry);
        }}
      >
        {name}
      </h3>
      {role !== "channel" && catalogue && (
        <CommandMenu
          subject={subject}
          label={`${name} of ${owner.name}`}
          title="Move, replace or take out"
          look="card-menu"
        >
          <Ellipsis size={14} aria-hidden="true" />
        </CommandMenu>
      )}
    </div>
  );
}, alike);
