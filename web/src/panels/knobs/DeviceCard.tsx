import { clsx } from "clsx";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { acting } from "../../state/acting";
import { capital, chainId, type DeviceEntry, type Owner, type Placed, partOf } from "../../state/catalogue";
import type { Lookup } from "../../state/lookup";
import { useSong } from "../../state/song";
import { openDevice, openOf, setView, useView, viewNow } from "../../state/view";
import { openField } from "../../state/wishes";
import { OneStop } from "../../ui/OneStop";
import { DeviceHead } from "./DeviceHead";
import { DriveButton } from "./DriveButton";
import { Knob } from "./Knob";
import { SoundChoice } from "./SoundChoice";
import type { Carrying } from "./useCarrying";

/**
 * A device with very many parameters shows the first of them, and all that move or are in focus; the finder has the
 * rest.
 */
const MOST = 24;
const FIRST = 6;
export function shownOf(device: DeviceEntry, part: string | null, find: Lookup, focus: string | null): Placed[] {
  const list = device.list.filter((placed) => partOf(device, placed) === part);
  if (list.length <= MOST) return list;
  return list.filter((placed, i) => i < FIRST || placed.address === focus || find.targets[placed.address]);
}

interface Props {
  owner: Owner;
  device: DeviceEntry;
  find: Lookup;
  focus: string | null;
  carrying: Carrying;
  /** Whether its knobs are seen. */
  open: boolean;
}

/** A device of a chain: its head, and its knobs; a narrow card while it is closed. */
export function DeviceCard({ owner, device, find, focus, carrying, open }: Props) {
  const part = owner.devices?.find(({ id }) => id === device.id);
  if (!part) return null;
  const chain = chainId(owner);
  const turn = (on: boolean) => openDevice(chain, device.id, on, openOf(chain, owner.devices ?? []));
  const number = device.list.length === 1 ? "1 knob" : `${device.list.length} knobs`;
  const goal = carrying.at !== null && carrying.beforeAt(carrying.at) === device.id;
  return (
    <section
      ref={(card) => carrying.note(device.id, card)}
      className={clsx("device-card", goal && "drop-before", !open && "device-card-closed")}
      aria-label={device.name}
    >
      <OneStop>
        <div className="flex items-center">
          <DeviceHead owner={owner} device={part} name={device.name} carrying={carrying} />
          {open && (
            <button
              type="button"
              className="card-menu card-close"
              aria-expanded={true}
              aria-label={`Close ${device.name} of ${owner.name}`}
              onClick={() => turn(false)}
            >
              <ChevronLeft size={14} aria-hidden="true" />
            </button>
          )}
        </div>
        {open ? (
          <Knobs owner={owner} device={device} find={find} focus={focus} />
        ) : (
          <button
            type="button"
            className="device-closed"
            aria-expanded={false}
            aria-label={`Open ${device.name} of ${owner.name}, ${number}`}
            data-testid={`open-${device.path}`}
            onClick={() => turn(true)}
          >
            {number}
            <ChevronRight size={14} aria-hidden="true" />
          </button>
        )}
      </OneStop>
    </section>
  );
}

/** The knobs of a device that is open. */
function Knobs({ owner, device, find, focus }: Omit<Props, "carrying" | "open">) {
  const part = owner.devices?.find(({ id }) => id === device.id);
  const samples = useSong(({ catalogue }) => (part ? catalogue?.devices[part.type]?.samples : false));
  const role = useSong(({ catalogue }) => (part ? catalogue?.devices[part.type]?.role : null));
  const shown = useView((state) => state.parts[device.path] ?? null);
  return (
    <div className="flex">
      {samples && part && <SoundChoice owner={owner} device={part} />}
      {device.parts.length > 0 && <PartChoice device={device} shown={shown} />}
      {shownOf(device, shown, find, focus).map((placed) => (
        <div key={placed.address} className="relative">
          <Knob owner={owner} placed={placed} acts={acting(find, placed.address)} focused={focus === placed.address} />
          {role === "macros" && <DriveButton address={placed.address} name={placed.entry.name} small />}
        </div>
      ))}
      {device.list.length > MOST && device.parts.length === 0 && (
        <button
          type="button"
          className="btn btn-ghost btn-sm mx-1 h-16 w-20 self-center font-normal whitespace-normal"
          onClick={() => openField("find", "finder")}
        >
          find among {device.list.length}
        </button>
      )}
    </div>
  );
}

/** The parts of a kit: one of them, or the whole, is shown. */
function PartChoice({ device, shown }: { device: DeviceEntry; shown: string | null }) {
  const take = (part: string) => {
    const { [device.path]: _, ...rest } = viewNow().parts;
    setView({ parts: part ? { ...rest, [device.path]: part } : rest });
  };
  return (
    <select
      className="select select-sm mx-1 w-28 self-center pointer-coarse:h-11"
      aria-label={`Part of the ${device.name.toLowerCase()}`}
      value={shown ?? ""}
      onChange={(event) => take(event.target.value)}
    >
      <option value="">whole kit</option>
      {device.parts.map((part) => (
        <option key={part} value={part}>
          {capital(part)}
        </option>
      ))}
    </select>
  );
}
