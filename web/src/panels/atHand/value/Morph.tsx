import { X } from "lucide-react";
import { useEffect, useState } from "react";
import type { EditInputs, TrackPart } from "../../../api/types";
import { editAndTell } from "../../../state/edits";
import { readPresets, usePresets } from "../../../state/presets";
import { useSong } from "../../../state/song";
import { useGhost } from "../../../state/useGhost";
import { Do } from "../../../ui/Entry";

const MOST = 8;
/** How a device stands now, among its settings. */
const NOW = "now";

type Setting = EditInputs["morph_macro"]["settings"][number];

/** Lets a macro run through kept settings of a device, from one to the next. */
export function Morph({ macro }: { macro: string }) {
  const catalogue = useSong((state) => state.catalogue);
  const tracks = useSong((state) => state.model.tracks);
  const presets = usePresets((state) => state.list);
  const [path, setPath] = useState("");
  const [chosen, setChosen] = useState<string[]>([NOW, ""]);
  useEffect(() => void readPresets(), []);
  const devices = tracks.flatMap((track) =>
    track.devices
      .filter(({ type }) => type !== "channel" && catalogue?.devices[type]?.role !== "macros")
      .map((device) => ({ key: `${track.id}/${device.id}`, device, track })),
  );
  const device = devices.find(({ key }) => key === path)?.device;
  const fitting = (presets ?? []).filter((preset) => preset.device === device?.type);
  const known = catalogue?.devices[device?.type ?? ""]?.parameters.map(({ id }) => id) ?? [];
  const settings = chosen.flatMap((id): Setting[] => {
    if (id === NOW && device) return [{ values: ownValues(device, known) }];
    const preset = fitting.find((one) => String(one.id) === id);
    return preset ? [{ values: preset.devices[0].values }] : [];
  });
  const inputs = (): EditInputs["morph_macro"] | null =>
    device && settings.length > 1 ? { macro, device: path, settings } : null;
  const ghost = useGhost("morph_macro", inputs);
  const set = (place: number, id: string) => setChosen(chosen.map((one, i) => (i === place ? id : one)));
  return (
    <>
      <select
        className="select select-sm w-full pointer-coarse:h-11"
        aria-label="Device to morph"
        value={path}
        onChange={(event) => setPath(event.target.value)}
      >
        <option value="">choose a device</option>
        {devices.map(({ key, device: one, track }) => (
          <option key={key} value={key}>{`${catalogue?.devices[one.type]?.name ?? one.type} of ${track.name}`}</option>
        ))}
      </select>
      {device && (
        <>
          <p className="faint text-xs">From the foot of its travel to the top:</p>
          {chosen.map((id, place) => (
            <div key={place} className="flex items-center gap-1">
              <select
                className="select select-sm min-w-0 grow pointer-coarse:h-11"
                aria-label={`Setting ${place + 1}`}
                value={id}
                onChange={(event) => set(place, event.target.value)}
              >
                <option value="">choose a setting</option>
                <option value={NOW}>as it stands now</option>
                {fitting.map((preset) => (
                  <option key={preset.id} value={String(preset.id)}>
                    {preset.name}
                  </option>
                ))}
              </select>
              {chosen.length > 2 && (
                <button
                  type="button"
                  className="btn btn-ghost btn-xs btn-square pointer-coarse:size-11"
                  aria-label={`Leave setting ${place + 1} out`}
                  onClick={() => setChosen(chosen.filter((_, i) => i !== place))}
                >
                  <X size={13} />
                </button>
              )}
            </div>
          ))}
          <div className="flex gap-1" {...ghost.props}>
            <Do words="One more" off={chosen.length >= MOST} onDo={() => setChosen([...chosen, ""])} />
            <Do
              words="Morph"
              off={settings.length < 2}
              title="The macro goes from each setting to the next"
              onDo={() => {
                const given = inputs();
                ghost.done();
                if (given) void editAndTell("morph_macro", given);
              }}
            />
          </div>
          {fitting.length === 0 && (
            <p className="faint text-xs">Keep settings of it first: its dots at the foot, Presets.</p>
          )}
        </>
      )}
    </>
  );
}

/** The values that belong to a device itself, without its sends. */
const ownValues = ({ values }: TrackPart["devices"][number], known: string[]): Setting["values"] =>
  Object.fromEntries(Object.entries(values).filter(([id]) => known.includes(id)));
