import type { Conflict } from "../../../api/types";
import { positionText } from "../../../geometry/viewport";
import { edit } from "../../../state/edits";
import { leadTo } from "../../../state/lead";
import { useSong } from "../../../state/song";

const NONE: Conflict[] = [];

/** Where two clip envelopes set the parameter at once, which of them is heard, and ways to settle it. */
export function Conflicts({ address, tick }: { address: string; tick: number }) {
  const all = useSong((state) => state.conflicts[address]) ?? NONE;
  const model = useSong((state) => state.model);
  const here = all.filter(([from, to]) => tick >= from && tick < to);
  const told = here.length > 0 ? here : all.slice(0, 1);
  if (told.length === 0) return null;
  const position = (at: number) => positionText(model.head.meters, at);
  const name = (regionId: string) => model.clips[model.regions[regionId]?.clip_id]?.name ?? "a clip";
  const role = (envelopeId: string) => edit("set_role", { envelope_id: envelopeId, role: "shift" });
  return (
    <section className="rounded-box border border-warning p-2.5" aria-label="Two set this">
      {told.map(([from, to, winner, loser]) => (
        <div key={`${from} ${winner[0]} ${loser[0]}`} className="flex flex-col gap-1.5">
          <p className="text-xs">
            <b>Two set this</b> from {position(from)} to {position(to)}: <b>{name(winner[1])}</b> is heard,{" "}
            {name(loser[1])} is not.
          </p>
          <div className="flex flex-wrap gap-1">
            <button
              type="button"
              className="btn btn-xs pointer-coarse:h-10"
              onClick={() => void edit("switch_envelope", { envelope_id: loser[0], on: false })}
            >
              Switch {name(loser[1])} off
            </button>
            <button
              type="button"
              className="btn btn-xs pointer-coarse:h-10"
              onClick={() => void edit("switch_envelope", { envelope_id: winner[0], on: false })}
            >
              Switch {name(winner[1])} off
            </button>
            <button
              type="button"
              className="btn btn-xs pointer-coarse:h-10"
              title="It then adds to the other"
              onClick={() => void role(winner[0])}
            >
              Let {name(winner[1])} shift
            </button>
            <button
              type="button"
              className="btn btn-xs pointer-coarse:h-10"
              title="Shows the region, to be moved"
              onClick={() => leadTo(winner[0], winner[1])}
            >
              Go to {name(winner[1])}
            </button>
          </div>
        </div>
      ))}
      {all.length > told.length && <p className="faint mt-1 text-xs">and {all.length - told.length} more like it</p>}
    </section>
  );
}
