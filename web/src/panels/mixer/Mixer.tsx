import { clsx } from "clsx";
import { memo, useEffect } from "react";
import type { Catalogue, TrackPart } from "../../api/types";
import { hueStyle } from "../../geometry/hue";
import { acting } from "../../state/acting";
import { type Placed, parametersOf } from "../../state/catalogue";
import { drawHeard } from "../../state/drawing";
import type { Lookup } from "../../state/lookup";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { setView, useView } from "../../state/view";
import { ArmButton } from "../../table/ArmButton";
import { ListenButtons } from "../../table/ListenButtons";
import { useExactValues } from "../knobs/useExactValues";
import { Meter } from "./Meter";
import { Slide } from "./Slide";

const FADER_PX = 112;
const ACROSS_PX = 64;

/** All channels side by side, moving as heard while it plays. */
export function Mixer() {
  const catalogue = useSong((state) => state.catalogue);
  const { model, find } = useShown();
  const tracks = model.tracks.filter(({ kind }) => kind !== "carrier");
  const channels = catalogue ? tracks.map((track) => ({ track, list: channelOf(catalogue, model.tracks, track) })) : [];
  const addresses = channels.flatMap(({ list }) => list.map(({ address }) => address)).join(",");
  useExactValues(addresses);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked for again just when one of these changes
  useEffect(
    () => drawHeard(addresses.split(",").filter((address) => find.targets[address])),
    [addresses, model.envelopes],
  );
  return (
    <div className="mixer" role="group" aria-label="Mixer">
      {channels.map(({ track, list }) => (
        <Channel key={track.id} track={track} list={list} find={find} />
      ))}
    </div>
  );
}

const channelOf = (catalogue: Catalogue, tracks: TrackPart[], track: TrackPart): Placed[] =>
  parametersOf(catalogue, tracks, track).find(({ id }) => id === "channel")?.list ?? [];

interface Props {
  track: TrackPart;
  list: Placed[];
  find: Lookup;
}

const Channel = memo(function Channel({ track, list, find }: Props) {
  const chosen = useView((state) => state.trackId === track.id);
  const silent = useSong((state) => state.silent.includes(track.id));
  const named = (id: string) => list.find(({ entry }) => entry.id === id);
  const [volume, pan] = [named("volume"), named("pan")];
  const sends = list.filter(({ entry }) => entry.id.startsWith("send-"));
  const across = (placed: Placed, name: string) => (
    <Slide
      key={placed.address}
      owner={track}
      placed={placed}
      acts={acting(find, placed.address)}
      axis="across"
      travel={ACROSS_PX}
      name={name}
    />
  );
  return (
    <section className={clsx("channel", chosen && "channel-chosen", silent && "opacity-60")} aria-label={track.name}>
      <button
        type="button"
        className="channel-name"
        style={hueStyle(track.hue)}
        aria-pressed={chosen}
        title={track.name}
        onClick={() => setView({ trackId: track.id })}
      >
        {track.name}
      </button>
      <div>
        {sends.map((placed) => across(placed, placed.entry.name))}
        {pan && across(pan, "Pan")}
      </div>
      <div className="flex grow items-stretch justify-center gap-2">
        {volume && (
          <Slide
            owner={track}
            placed={volume}
            acts={acting(find, volume.address)}
            axis="up"
            travel={FADER_PX}
            name="Volume"
          />
        )}
        <Meter trackId={track.id} name={track.name} />
      </div>
      <div className="flex justify-center">
        <ListenButtons track={track} />
        <ArmButton trackId={track.id} name={track.name} />
      </div>
    </section>
  );
});
