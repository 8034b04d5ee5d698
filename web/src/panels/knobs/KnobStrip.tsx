import { useEffect } from "react";
import type { ClipPart } from "../../api/types";
import { parametersOf, parametersOfClip, targetsOn } from "../../state/catalogue";
import { useChoice } from "../../state/choice";
import { drawHeard, heardInView } from "../../state/drawing";
import { always } from "../../state/movers";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { AddDevice } from "./AddDevice";
import { ClipEffects } from "./ClipEffects";
import { DeviceCard, shownOf } from "./DeviceCard";
import { useCarrying } from "./useCarrying";
import { useExactValues } from "./useExactValues";
import { useOpenDevices } from "./useOpenDevices";
import { WhatMoves } from "./WhatMoves";

/** What moves on the selected track; then its devices, in the order the sound goes through them. */
export function KnobStrip() {
  const catalogue = useSong((state) => state.catalogue);
  const trackId = useView((state) => state.trackId);
  const focus = useView((state) => (trackId ? state.focus[trackId] : null));
  const regionId = useChoice((state) => state.regionId);
  const parts = useView((state) => state.parts);
  const { model, find } = useShown();
  const track = model.tracks.find((entry) => entry.id === trackId);
  const clip = clipOn(trackId, regionId ? model.regions[regionId] : undefined, model.clips);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => drawHeard(heardInView()), [trackId, model]);
  const devices = catalogue && track ? parametersOf(catalogue, model.tracks, track) : [];
  const opened = useOpenDevices(track);
  const ofClip = catalogue && clip ? parametersOfClip(catalogue, clip) : [];
  const seen = [...devices.filter(({ id }) => opened.includes(id)), ...ofClip];
  const knobs = seen.flatMap((device) =>
    shownOf(device, parts[device.path] ?? null, find, focus).map(({ address }) => address),
  );
  const moving = track ? [...targetsOn(model, track.id), ...always(track.id)] : [];
  useExactValues([...new Set([...knobs, ...moving])].join(","));
  const carrying = useCarrying(track);
  if (!catalogue || !track) return <p className="faint p-4">Select a track to see its knobs.</p>;
  if (track.kind === "carrier")
    return (
      <p className="faint p-4">
        A carrier track has no knobs of its own. Select one of its clips, then another track or the finder (/), and
        press the + of any knob.
      </p>
    );
  const first = (type: string) => catalogue.devices[type]?.plays || catalogue.devices[type]?.role === "macros";
  const played = track.devices.filter(({ type }) => first(type)).length;
  const cards = devices.map((device) => (
    <DeviceCard
      key={device.id}
      owner={track}
      device={device}
      find={find}
      focus={focus}
      carrying={carrying}
      open={opened.includes(device.id)}
    />
  ));
  return (
    <div className="flex h-full" aria-label={`Knobs of ${track.name}`} role="group">
      <div className="fade-x flex h-full min-w-0 gap-2 overflow-auto p-2">
        <WhatMoves track={track} model={model} find={find} focus={focus ?? null} />
        {cards.slice(0, played)}
        {clip && <ClipEffects key={clip.id} clip={clip} track={track} find={find} focus={focus} />}
        {cards.slice(played)}
      </div>
      <AddDevice owner={track} words="Device" label="Add a device" />
    </div>
  );
}

/** The clip of a chosen region that lies on a track, if it can have effects. */
function clipOn(
  trackId: string | null,
  region: { owner: string; clip_id: string } | undefined,
  clips: Record<string, ClipPart>,
): ClipPart | null {
  const clip = region && region.owner === `track/${trackId}` ? clips[region.clip_id] : undefined;
  return clip && clip.kind !== "carrier" ? clip : null;
}
