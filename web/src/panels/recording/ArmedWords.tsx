import { findParameter } from "../../state/catalogue";
import { writtenOver } from "../../state/foretelling";
import { anyArmed, usePerforming } from "../../state/performing";
import { useSong } from "../../state/song";
import { useTransport } from "../../state/transport";
import { useView } from "../../state/view";
import { Needle } from "../../ui/Needle";

/** So many are named; more are counted. */
const MOST_NAMED = 5;

/** What is armed, and which moves would be written over where hands touch them. */
export function ArmedWords() {
  const { armed, into, role, taken } = usePerforming();
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const trackId = useView((state) => state.trackId);
  const from = useTransport((state) => (state.playing ? 0 : state.playhead));
  if (taken === "notes" || !catalogue) return null;
  const atHand = model.tracks.find(({ id, kind }) => id === trackId && kind !== "carrier");
  const nothing = !anyArmed(armed);
  const meant = nothing && atHand ? { knobs: [], tracks: [atHand.id], clips: [] } : armed;
  const names = [
    ...armed.tracks.flatMap((id) => model.tracks.find((track) => track.id === id)?.name ?? []),
    ...armed.clips.flatMap((id) => model.clips[id]?.name ?? []),
    ...armed.knobs.flatMap((address) => findParameter(catalogue, model, address)?.entry.name ?? []),
  ];
  const over = writtenOver(model, meant, { into, role }, from);
  const nameOf = (target: string) => findParameter(catalogue, model, target)?.entry.name ?? target;
  return (
    <div className="flex flex-col gap-1 text-sm">
      <p className="flex items-center gap-1">
        <Needle />{" "}
        {nothing ? (atHand ? `${atHand.name} will be armed` : "Nothing is armed") : `Armed: ${names.join(", ")}`}
      </p>
      {over.length > 0 && (
        <p className="faint text-xs" data-testid="written-over">
          Written over where touched:{" "}
          {over
            .slice(0, MOST_NAMED)
            .map(
              ({ target, place, regions }) =>
                `${nameOf(target)} in ${place}${regions > 1 ? ` (${regions} regions)` : ""}`,
            )
            .join(", ")}
          {over.length > MOST_NAMED && ` and ${over.length - MOST_NAMED} more`}
        </p>
      )}
    </div>
  );
}
