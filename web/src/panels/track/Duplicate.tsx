import { useEffect, useState } from "react";
import type { EditInputs, TrackCounts, TrackPart } from "../../api/types";
import { editAndTell } from "../../state/edits";
import { api } from "../../state/questions";
import { useSong } from "../../state/song";
import { Deed } from "../../ui/Deed";
/** Asks, before a track is duplicated, whether its moves come along, and shows what each choice brings. */
export function Duplicate({ track }: { track: TrackPart }) {
  const [counts, setCounts] = useState<TrackCounts | null>(null);
  const revision = useSong((state) => state.revision);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => setCounts(null), [track.id, revision]);
  const words = (number: number, word: string) => `${number} ${word}${number === 1 ? "" : "s"}`;
  const make = (moves: EditInputs["duplicate_track"]["moves"]) =>
    void editAndTell("duplicate_track", { track_id: track.id, moves });
  const count = () => void api().trackCounts(track.id).then(setCounts);
  if (!counts) return <Deed rank="main" words="Duplicate this track …" onDo={count} />;
  return (
    <div className="rounded-field border border-base-300 p-2" role="group" aria-label="Duplicate this track">
      <button type="button" className="btn btn-sm btn-primary w-full pointer-coarse:h-11" onClick={() => make(true)}>
        With its moves
      </button>
      <p className="faint mb-1.5 text-xs">
        {words(counts.regions, "region")}, {words(counts.lanes, "lane")} and {words(counts.envelopes, "clip move")} come
        along, turned to the new track.
      </p>
      <button type="button" className="btn btn-sm w-full pointer-coarse:h-11" onClick={() => make(false)}>
        Without its moves
      </button>
      <p className="faint text-xs">
        {words(counts.regions, "region")} with the same material;{" "}
        {counts.lanes + counts.envelopes === 0
          ? "there are no moves"
          : `${words(counts.lanes, "lane")} and ${words(counts.envelopes, "clip move")} stay behind`}
        .
      </p>
    </div>
  );
}
