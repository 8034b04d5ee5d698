import type { HandOverLimits } from "../../api/types";
import { limitTo } from "../../state/handOver";
import { useSong } from "../../state/song";
import { NumberField } from "../../ui/Fields";
import { Fold } from "../../ui/Fold";
import { Ticked } from "./Tick";

const FLAGS = {
  lanes_only: "Lanes of tracks only, no moves in clips",
  no_carriers: "No carrier clips",
  set_only: "Set only, no shift or scale",
  straight: "Straight lines only",
  one_tempo: "One tempo",
} as const;

/** Limits one by one. */
export function LimitList({ limits }: { limits: HandOverLimits }) {
  const tracks = useSong((state) => state.model.tracks);
  const change = (next: Partial<HandOverLimits>) =>
    limitTo(JSON.parse(JSON.stringify({ ...limits, ...next })) as HandOverLimits);
  const moving = tracks.filter(({ kind }) => kind !== "carrier");
  const along = limits.track_ids ?? moving.map(({ id }) => id);
  const turn = (id: string, on: boolean) => {
    const next = moving.filter((track) => (track.id === id ? on : along.includes(track.id))).map((track) => track.id);
    change({ track_ids: next.length === moving.length || next.length === 0 ? undefined : next });
  };
  return (
    <Fold id="limits" words="Limits">
      {(Object.keys(FLAGS) as (keyof typeof FLAGS)[]).map((flag) => (
        <Ticked
          key={flag}
          on={limits[flag] ?? false}
          words={FLAGS[flag]}
          set={(on) => change({ [flag]: on || undefined })}
        />
      ))}
      <NumberField
        label="Points a lane (0: any number)"
        unit=""
        min={0}
        max={200000}
        value={limits.points_per_lane ?? 0}
        onCommit={(number) => change({ points_per_lane: number >= 2 ? Math.round(number) : undefined })}
      />
      <NumberField
        label="Points a second (0: any number)"
        unit=""
        min={0}
        max={1000}
        value={limits.points_per_second ?? 0}
        onCommit={(number) => change({ points_per_second: number >= 0.1 ? number : undefined })}
      />
      <label className="flex items-center gap-2 text-xs">
        <span className="faint">values of</span>
        <select
          className="select select-xs w-28 pointer-coarse:h-11"
          aria-label="How fine values are"
          value={limits.bits ?? 0}
          onChange={(event) => change({ bits: (Number(event.target.value) || undefined) as 7 | 14 | undefined })}
        >
          <option value={0}>any fineness</option>
          <option value={7}>7 bits</option>
          <option value={14}>14 bits</option>
        </select>
      </label>
      <Fold id="along" words={`Tracks whose moves go along (${along.length} of ${moving.length})`}>
        {moving.map(({ id, name }) => (
          <Ticked key={id} on={along.includes(id)} words={name} set={(on) => turn(id, on)} />
        ))}
      </Fold>
    </Fold>
  );
}
