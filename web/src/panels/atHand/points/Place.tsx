import type { EditInputs, EnvelopePart, RegionPart, Ticks } from "../../../api/types";
import { outside } from "../../../geometry/hit";
import { useChoice } from "../../../state/choice";
import { useSong } from "../../../state/song";
import { useSayPosition } from "../../../table/strips/useSay";
import { Typed } from "../../../ui/Entry";

type Base = Pick<EditInputs["enter_points"], "envelope_id" | "runs">;

/** The region in hand in which an envelope sounds, and where a tick of it lies in the song there. */
function useInSong(envelope: EnvelopePart, tick: Ticks): { region: RegionPart; songTick: Ticks } | null {
  const from = useChoice((state) => state.windowFrom);
  const regions = useSong((state) => state.model.regions);
  const windows = useSong((state) => state.windows);
  for (const [regionId, entry] of Object.entries(windows)) {
    const window = entry[envelope.id]?.find((one) => one[0] === from);
    const region = regions[regionId];
    if (window && region) return { region, songTick: outside(window, tick) };
  }
  return null;
}

/** Where a point lies: of a clip's envelope in the clip, and in the song where it is in hand. Either can be typed. */
export function Place({ envelope, tick, base }: { envelope: EnvelopePart; tick: Ticks; base: Base }) {
  const clip = useSong(({ model }) => model.clips[envelope.owner.slice("clip/".length)]);
  const say = useSayPosition(clip);
  const sayInSong = useSayPosition();
  const inSong = useInSong(envelope, tick);
  const inClip = envelope.owner.startsWith("clip/");
  return (
    <>
      <Typed
        label={inClip ? "In the clip" : "Position"}
        value={say(tick)}
        name="enter_points"
        inputs={(position) => ({ ...base, position })}
      />
      {inClip && inSong && (
        <Typed
          label="In the song"
          value={sayInSong(Math.round(inSong.songTick))}
          name="enter_points"
          inputs={(position) => ({ ...base, position, region_id: inSong.region.id })}
        />
      )}
    </>
  );
}
