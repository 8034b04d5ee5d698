import { AudioLines } from "lucide-react";
import type { TrackPart } from "../../api/types";
import type { Owner } from "../../state/catalogue";
import { showSounds, useSoundList } from "../../state/soundList";

/** What a sampler plays, and the way to another sound. */
export function SoundChoice({ owner, device }: { owner: Owner; device: TrackPart["devices"][number] }) {
  const name = useSoundList(({ list }) => list?.find(({ id }) => id === device.sound)?.name);
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm mx-1 h-16 w-20 flex-col gap-1 self-center font-normal whitespace-normal"
      aria-label={`Choose a sound for the sampler of ${owner.name}`}
      onClick={() => showSounds(owner, device.id)}
    >
      <AudioLines size={16} aria-hidden="true" />
      <span className="line-clamp-2 max-w-full text-xs">
        {device.sound ? (name ?? device.sound) : "Choose a sound"}
      </span>
    </button>
  );
}
