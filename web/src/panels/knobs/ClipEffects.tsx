import { Ellipsis } from "lucide-react";
import type { ClipPart, TrackPart } from "../../api/types";
import { parametersOfClip } from "../../state/catalogue";
import { edit, editAndTell } from "../../state/edits";
import type { Lookup } from "../../state/lookup";
import { showPresets } from "../../state/presets";
import { useSong } from "../../state/song";
import { type Deed, DeedMenu } from "../../ui/Menu";
import { AddDevice } from "./AddDevice";
import { DeviceCard } from "./DeviceCard";
import { useCarrying } from "./useCarrying";
import { useOpenDevices } from "./useOpenDevices";

interface Props {
  clip: ClipPart;
  track: TrackPart;
  find: Lookup;
  focus: string | null;
}

/** The effects of the chosen clip, between the track's instrument and its first effect, where they sound. */
export function ClipEffects({ clip, track, find, focus }: Props) {
  const catalogue = useSong((state) => state.catalogue);
  const carrying = useCarrying(clip);
  const opened = useOpenDevices(clip);
  if (!catalogue) return null;
  const devices = parametersOfClip(catalogue, clip);
  return (
    <section className="clip-effects" aria-label={`Effects of ${clip.name}`}>
      <div className="clip-effects-name">
        <h3 className="truncate text-xs font-bold" title={`Heard only while ${clip.name} sounds`}>
          {clip.name}
        </h3>
        {devices.length > 0 && (
          <DeedMenu
            label={`Effects of ${clip.name}: more`}
            title="Tails, presets, to the track"
            look="card-menu"
            head={`Effects of ${clip.name}`}
            deeds={deedsOf(clip, track)}
          >
            <Ellipsis size={14} aria-hidden="true" />
          </DeedMenu>
        )}
      </div>
      <div className="flex gap-2">
        {devices.map((device) => (
          <DeviceCard
            key={device.id}
            owner={clip}
            device={device}
            find={find}
            focus={focus}
            carrying={carrying}
            open={opened.includes(device.id)}
          />
        ))}
        <AddDevice owner={clip} words={devices.length > 0 ? "" : "Effect"} label={`Add an effect to ${clip.name}`} />
      </div>
    </section>
  );
}

function deedsOf(clip: ClipPart, track: TrackPart): Deed[] {
  const stops = clip.tails === "stop";
  return [
    {
      id: "tails",
      words: stops ? "Let tails ring" : "Stop tails at the end",
      what: stops ? "what the effects ring on with is heard after the clip" : "silent as soon as the clip ends",
      act: () => void edit("set_tails", { clip_id: clip.id, tails: stops ? "ring" : "stop" }),
    },
    { id: "presets", words: "Presets …", what: "use one, or keep this", act: () => showPresets(clip, null) },
    {
      id: "to-track",
      words: `Make them effects of ${track.name}`,
      what: "all its clips are heard through them",
      act: () => editAndTell("chain_to_track", { clip_id: clip.id }),
    },
  ];
}
