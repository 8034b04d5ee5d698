import { ArrowLeftRight, X } from "lucide-react";
import { memo } from "react";
import { findParameter } from "../../../state/catalogue";
import { edit, editTyped } from "../../../state/edits";
import { focusOn } from "../../../state/focus";
import { useReading } from "../../../state/reading";
import { useSong } from "../../../state/song";
import { TextField } from "../../../ui/Fields";
import { Fold } from "../../../ui/Fold";
import { DriveButton } from "../../knobs/DriveButton";
import { Morph } from "./Morph";

type Stops = [place: number, value: number][];

/**
 * Of a macro: its name, and what it drives between which values. Of anything else nothing. What is tried meanwhile
 * changes nothing of it, so it is not drawn again for that.
 */
export const Drives = memo(function Drives({ address }: { address: string }) {
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const found = catalogue && findParameter(catalogue, model, address);
  const device = found?.owner.devices?.find(({ id }) => id === found.deviceId);
  if (!found || !device || catalogue.devices[device.type]?.role !== "macros") return null;
  const drives = device.macros?.find(({ id }) => id === found.entry.id)?.drives ?? [];
  return (
    <section className="rounded-box border border-base-300 p-2.5" aria-label="What it drives">
      <div className="flex items-end gap-2">
        <TextField
          label="Name"
          named
          value={found.entry.name}
          className="w-full pointer-coarse:h-11"
          onCommit={(name) => editTyped("set_macro", { address, name })}
        />
        <DriveButton address={address} name={found.entry.name} />
      </div>
      {drives.length === 0 && (
        <p className="faint mt-2 text-xs">It drives nothing yet. Press Drive, then touch the knobs it is to drive.</p>
      )}
      <ul className="mt-2 flex flex-col gap-2">
        {drives.map(({ target, stops }) => (
          <DriveRow key={target} macro={address} target={target} stops={stops as Stops} />
        ))}
      </ul>
      <div className="mt-2">
        <Fold id="morph" words="Morph between settings">
          <Morph macro={address} />
        </Fold>
      </div>
    </section>
  );
});

/** One parameter that is driven: the way there, its values at both ends of the macro, and what can be done with it. */
function DriveRow({ macro, target, stops }: { macro: string; target: string; stops: Stops }) {
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const found = catalogue && findParameter(catalogue, model, target);
  const name = found ? `${found.entry.name} of ${found.owner.name}` : `${target} (missing)`;
  const [low, high] = [stops[0][1], stops[stops.length - 1][1]];
  const texts = [useReading({ address: target, value: low }), useReading({ address: target, value: high })];
  const inputs = { macro, target };
  const over = (): Stops => [...stops].reverse().map(([at, value]) => [1 - at, value]);
  return (
    <li aria-label={name}>
      <div className="flex items-center gap-1">
        <button type="button" className="min-w-0 grow truncate text-left underline" onClick={() => focusOn(target)}>
          {name}
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square pointer-coarse:h-10 pointer-coarse:w-10"
          aria-label={`Turn the drive of ${name} over`}
          title="The other way"
          onClick={() => void edit("set_drive", { ...inputs, stops: over() })}
        >
          <ArrowLeftRight size={13} />
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square pointer-coarse:h-10 pointer-coarse:w-10"
          aria-label={`Drive ${name} no more`}
          title="Drive it no more"
          onClick={() => void edit("remove_drive", { target })}
        >
          <X size={13} />
        </button>
      </div>
      {stops.length > 2 && <p className="faint text-xs">through {stops.length} places</p>}
      <div className="flex gap-1">
        <TextField
          label={`${name} at 0 %`}
          value={texts[0]}
          className="w-full pointer-coarse:h-11"
          onCommit={(text) => editTyped("set_drive", { ...inputs, low: text })}
        />
        <TextField
          label={`${name} at 100 %`}
          value={texts[1]}
          className="w-full pointer-coarse:h-11"
          onCommit={(text) => editTyped("set_drive", { ...inputs, high: text })}
        />
      </div>
    </li>
  );
}
