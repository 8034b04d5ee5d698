import { Trash2 } from "lucide-react";
import type { Catalogue, PresetEntry } from "../api/types";
import { isClip, type Owner, ownerById } from "../state/catalogue";
import { closePresets, givePreset, keepPreset, removePreset, usePresets } from "../state/presets";
import { useSong } from "../state/song";
import { Box } from "../ui/Box";
import { TextField } from "../ui/Fields";

/** The presets of a device or of a whole chain: to be used, kept, or let go of. */
export function PresetBox() {
  const open = usePresets((state) => state.open);
  const list = usePresets((state) => state.list);
  const catalogue = useSong((state) => state.catalogue);
  const owner = useSong(({ model }) => open && ownerById(model, open.chain));
  const device = owner?.devices?.find(({ id }) => id === open?.deviceId);
  if (!open || !owner || !catalogue || (open.deviceId && !device)) return null;
  const what = device ? (catalogue.devices[device.type]?.name ?? device.type) : `the chain of ${owner.name}`;
  const fitting = (list ?? []).filter((preset) => fits(catalogue, owner, device?.type ?? null, preset));
  const keep = async (name: string) => {
    let fault: string | null = null;
    await keepPreset(owner, open.deviceId, name, (said) => {
      fault = said;
    });
    return fault;
  };
  return (
    <Box title={`Presets for ${what}`} onClose={closePresets}>
      <ul className="flex flex-col gap-1" aria-label="Presets">
        {fitting.map((preset) => (
          <li key={preset.id} className="flex items-center gap-1">
            <button
              type="button"
              className="preset"
              onClick={() => void givePreset(owner, open.deviceId, preset).then(closePresets)}
            >
              {preset.name}
              <span className="faint text-xs">
                {device ? "" : preset.devices.map(({ type }) => catalogue.devices[type]?.name ?? type).join(", ")}
              </span>
            </button>
            {!preset.shipped && (
              <button
                type="button"
                className="btn btn-ghost btn-sm btn-square"
                aria-label={`Let go of ${preset.name}`}
                title="Let go of it"
                onClick={() => void removePreset(preset.id)}
              >
                <Trash2 size={14} />
              </button>
            )}
          </li>
        ))}
        {list && fitting.length === 0 && <li className="faint">None yet. Keep how it stands now under a name.</li>}
      </ul>
      <TextField
        named
        label="Keep how it stands now as"
        value=""
        hint="a name, then Enter"
        onCommit={keep}
        className="w-full border-base-300 bg-base-200 pointer-coarse:h-11"
      />
    </Box>
  );
}

/** Whether a preset can be used: of the same device, or a chain whose instrument the track can play. */
function fits(catalogue: Catalogue, owner: Owner, device: string | null, preset: PresetEntry): boolean {
  if (preset.device !== device) return false;
  const plays = catalogue.devices[preset.devices[0]?.type]?.plays;
  return device !== null || !plays || (!isClip(owner) && plays === owner.kind);
}
