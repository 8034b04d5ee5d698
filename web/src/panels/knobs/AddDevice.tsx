import { Plus } from "lucide-react";
import { typesFor } from "../../commands/devices";
import { isClip, type Owner, ownerInput } from "../../state/catalogue";
import { editAndTell } from "../../state/edits";
import { useSong } from "../../state/song";
import { DeedMenu } from "../../ui/Menu";

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
    act: () => editAndTell("add_device", { ...ownerInput(owner), type }),
  }));
  return (
    <DeedMenu label={label} title={`A device for ${owner.name}`} look="add-device" deeds={deeds}>
      <Plus size={16} aria-hidden="true" /> {words}
    </DeedMenu>
  );
}
