import { Plus } from "lucide-react";
import { typesFor } from "../../commands/devices";
import { chainId, isClip, type Owner, ownerById, ownerInput } from "../../state/catalogue";
import { editAndTell } from "../../state/edits";
import { song, useSong } from "../../state/song";
import { openDevice, openOf } from "../../state/view";
import { DeedMenu } from "../../ui/Menu";

/** Adds a device, and opens it. */
async function add(owner: Owner, type: string): Promise<void> {
  const chain = chainId(owner);
  const known = new Set(owner.devices?.map(({ id }) => id));
  if (!(await editAndTell("add_device", { ...ownerInput(owner), type }))) return;
  const devices = ownerById(song().model, chain)?.devices ?? [];
  const made = devices.find(({ id }) => !known.has(id));
  if (made) openDevice(chain, made.id, true, openOf(chain, devices));
}

interface Props {
  owner: Owner;
  /** What its label says; for a clip, whose chain is not seen while it is empty. */
  words: string;
  label: string;
}

/** Puts an effect at the end of a chain; or an instrument at the head of a track's, where there is none. */
export function AddDevice({ owner, words, label }: Props) {
  const catalogue = useSong((state) => state.catalogue);
  if (!catalogue) return null;
  const played = isClip(owner) || owner.devices.some(({ type }) => catalogue.devices[type]?.role === "instrument");
  const types = [
    ...(played ? [] : typesFor(catalogue, owner, "instrument")),
    ...(isClip(owner) ? [] : typesFor(catalogue, owner, "note-effect")),
    ...typesFor(catalogue, owner, "effect"),
    ...(isClip(owner) || owner.kind === "carrier" ? [] : typesFor(catalogue, owner, "macros")),
  ];
  const deeds = types.map(([type, name]) => ({
    id: type,
    words: name,
    act: () => add(owner, type),
  }));
  return (
    <DeedMenu label={label} title={`A device for ${owner.name}`} look="add-device" deeds={deeds}>
      <Plus size={16} aria-hidden="true" /> {words}
    </DeedMenu>
  );
}
