import { useEffect } from "react";
import { drawHeard, heardInView } from "../song/actions";
import { parametersOf } from "../song/catalogue";
import { useSong } from "../song/store";
import { useShown } from "../song/useShown";
import { Knob } from "./Knob";
import { acting } from "./state";

/** The devices of the selected track, a card each, in the order the sound goes through them. */
export function KnobStrip() {
  const catalogue = useSong((state) => state.catalogue);
  const trackId = useSong((state) => state.view.trackId);
  const focus = useSong((state) => (trackId ? state.view.focus[trackId] : null));
  const { model, find } = useShown();
  const track = model.tracks.find((entry) => entry.id === trackId);
  useEffect(() => void drawHeard(heardInView()), [trackId, model]);
  if (!catalogue || !track) return <p className="faint p-4">Select a track to see its knobs.</p>;
  return (
    <div className="flex h-full gap-2 overflow-auto p-2" aria-label={`Knobs of ${track.name}`} role="group">
      {parametersOf(catalogue, model.tracks, track).map((device) => (
        <section key={device.id} className="shrink-0 rounded-box border border-base-300 bg-base-200 px-2 pt-1.5" aria-label={device.name}>
          <h3 className="mb-1.5 pl-1 text-[12px] font-bold">{device.name}</h3>
          <div className="flex">
            {device.list.map((placed) => (
              <Knob key={placed.address} track={track} placed={placed} acts={acting(find, placed.address)} focused={focus === placed.address} />
            ))}
          </div>
        </section>
      ))}
    </div>
  );
}
