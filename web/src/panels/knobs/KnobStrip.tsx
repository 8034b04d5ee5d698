import { useEffect } from "react";
import { songApi } from "../../api/client";
import { drawHeard, heardInView } from "../../state/drawing";
import { openField } from "../../shell/keys";
import { type Placed, parametersOf } from "../../state/catalogue";
import type { Lookup } from "../../state/lookup";
import { setSong, useSong } from "../../state/store";
import { useShown } from "../../state/useShown";
import { Knob } from "./Knob";
import { acting } from "../../state/acting";

/** While the playhead stands, knobs show what the core says is heard there, to the last digit. */
function useExactValues(trackId: string | null): void {
  const songId = useSong((state) => state.songId);
  const playhead = useSong((state) => (state.playing || state.preview ? null : state.playhead));
  const revision = useSong((state) => state.revision);
  useEffect(() => {
    setSong({ exact: {} });
    const addresses = heardInView().filter((address) => address.startsWith(`${trackId}/`));
    if (songId === null || playhead === null || addresses.length === 0) return;
    let over = false;
    songApi(songId)
      .values(addresses, playhead)
      .then((exact) => !over && setSong({ exact }), () => undefined);
    return () => {
      over = true;
    };
  }, [songId, trackId, playhead, revision]);
}

/** A device with very many parameters shows the first of them, and all that move or are in focus; the finder has the rest. */
const MOST = 24;
const FIRST = 6;
const shownOf = (list: Placed[], find: Lookup, focus: string | null): Placed[] =>
  list.length <= MOST ? list : list.filter((placed, i) => i < FIRST || placed.address === focus || find.targets[placed.address]);

/** The devices of the selected track, a card each, in the order the sound goes through them. */
export function KnobStrip() {
  const catalogue = useSong((state) => state.catalogue);
  const trackId = useSong((state) => state.view.trackId);
  const focus = useSong((state) => (trackId ? state.view.focus[trackId] : null));
  const { model, find } = useShown();
  const track = model.tracks.find((entry) => entry.id === trackId);
  useEffect(() => void drawHeard(heardInView()), [trackId, model]);
  useExactValues(trackId);
  if (!catalogue || !track) return <p className="faint p-4">Select a track to see its knobs.</p>;
  if (track.kind === "carrier") return <p className="faint p-4">A carrier track has no knobs of its own. Select one of its clips, then another track or the finder (/), and press the + of any knob.</p>;
  return (
    <div className="flex h-full gap-2 overflow-auto p-2" aria-label={`Knobs of ${track.name}`} role="group">
      {parametersOf(catalogue, model.tracks, track).map((device) => (
        <section key={device.id} className="shrink-0 rounded-box border border-base-300 bg-base-200 px-2 pt-1.5" aria-label={device.name}>
          <h3 className="mb-1.5 pl-1 text-[12px] font-bold">{device.name}</h3>
          <div className="flex">
            {shownOf(device.list, find, focus).map((placed) => (
              <Knob key={placed.address} track={track} placed={placed} acts={acting(find, placed.address)} focused={focus === placed.address} />
            ))}
            {device.list.length > MOST && (
              <button type="button" className="btn btn-ghost btn-sm mx-1 h-16 w-20 self-center font-normal whitespace-normal" onClick={() => openField("find", "finder")}>
                find among {device.list.length}
              </button>
            )}
          </div>
        </section>
      ))}
    </div>
  );
}
