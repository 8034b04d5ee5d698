import { Plus } from "lucide-react";
import { memo } from "react";
import { clipFor, embed, freeRoles, layerDeeds, settingDeeds } from "../../gestures/embedding";
import { pressPlus } from "../../gestures/plusDrag";
import type { Acting } from "../../state/acting";
import { moveOf, type Placed, trackOf } from "../../state/catalogue";
import { useChoice } from "../../state/choice";
import { lookup } from "../../state/lookup";
import { useSong } from "../../state/song";
import { DeedMenu } from "../../ui/Menu";

const LOOK = "embed btn btn-circle btn-xs absolute -top-1 right-0";

interface Props {
  placed: Placed;
  acts: Acting;
  focused: boolean;
}

/**
 * The one press that makes an envelope for a knob: in the selected clip, or with none selected on the track; for an
 * effect of a clip always in that clip, but for a carrier. Where there is one already, it asks how the next one is to
 * act.
 */
export const EmbedButton = memo(function EmbedButton({ placed, acts, focused }: Props) {
  const { address, entry, scale } = placed;
  const regionId = useChoice((state) => state.regionId);
  const clip = useSong(({ model }) => clipFor(model, regionId, address));
  const home = useSong(({ model }) => trackOf(model, address));
  const owner = clip ? `clip/${clip.id}` : `track/${home}`;
  const count = useSong(
    ({ model }) => (lookup(model).targets[address] ?? []).filter((envelope) => envelope.owner === owner).length,
  );
  const setting = useSong(({ model }) => Boolean(moveOf(model, address)));
  if (!entry.automatable || (!setting && count > (scale.set_only ? 0 : 2))) return null;
  const quiet = focused || acts.clip || acts.lane ? "" : "embed-quiet";
  if (setting && clip) {
    const words = `Let something move the ${entry.name}`;
    const deeds = settingDeeds(address, clip, scale.set_only);
    if (deeds.length === 0) return null;
    return (
      <DeedMenu label={words} title={words} look={`${LOOK} ${quiet}`} head={words} deeds={deeds}>
        <Plus size={13} />
      </DeedMenu>
    );
  }
  if (count > 0) {
    const words = clip ? `Embed another ${entry.name} in ${clip.name}` : `Add another lane for ${entry.name}`;
    const deeds = layerDeeds(address, clip, freeRoles(address, owner));
    return (
      <DeedMenu label={words} title={words} look={`${LOOK} ${quiet}`} head={words} deeds={deeds}>
        <Plus size={13} />
      </DeedMenu>
    );
  }
  const words = clip ? `Embed ${entry.name} in ${clip.name}` : `Add a lane for ${entry.name}`;
  return (
    <button
      type="button"
      className={`${LOOK} ${quiet} touch-none`}
      title={`${words}; or drag it onto a region`}
      aria-label={words}
      onPointerDown={(event) => pressPlus(event, placed)}
      onClick={() => void embed(address, clip)}
    >
      <Plus size={13} />
    </button>
  );
});
