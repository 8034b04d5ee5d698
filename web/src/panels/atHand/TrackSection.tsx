import type { EnvelopePart, TrackPart } from "../../api/types";
import { useShown } from "../../state/useShown";
import { setView } from "../../state/view";
import { Do } from "../../ui/Entry";
import { MoveList } from "../MoveList";

/** With nothing chosen: the selected track and the moves it carries, in its clips and on its lanes. */
export function TrackSection({ track }: { track: TrackPart | undefined }) {
  const { find } = useShown();
  if (!track) return <p className="faint p-4">Press the name of a track, or touch a knob.</p>;
  const regions = find.regions[`track/${track.id}`] ?? [];
  const clips = [...new Set(regions.map(({ clip_id }) => clip_id))];
  const moves = [...clips.map((id) => `clip/${id}`), `track/${track.id}`].flatMap(
    (owner) => find.envelopes[owner] ?? [],
  );
  const regionOf = ({ owner }: EnvelopePart) => regions.find(({ clip_id }) => owner === `clip/${clip_id}`)?.id ?? null;
  return (
    <section className="flex flex-col gap-3 p-3" aria-label={`At hand: ${track.name}`} data-testid="at-hand">
      <h2 className="text-base font-bold">{track.name}</h2>
      <MoveList
        label="Its moves"
        envelopes={moves}
        regionOf={regionOf}
        placed
        none="None yet. Choose a region and press the + of a knob: the move is in its clip, and travels with it."
      />
      <p className="faint text-xs">Touch a knob to see where its value comes from.</p>
      <div className="flex">
        <Do words="All of the track …" onDo={() => setView({ sheet: "track" })} />
      </div>
    </section>
  );
}
