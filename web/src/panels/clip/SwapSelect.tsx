import { memo } from "react";
import type { RegionPart } from "../../api/types";
import { editAndTell } from "../../state/edits";
import type { Model } from "../../state/model";
import { song } from "../../state/song";

/** Clips by name, of the kinds given and carriers; drawn again only when clips change. */
const ClipOptions = memo(function ClipOptions({ clips, kinds }: { clips: Model["clips"]; kinds: string }) {
  const holds = song().catalogue?.track_kinds ?? {};
  const fitting = Object.values(clips).filter((clip) =>
    kinds.split(" ").every((kind) => holds[kind]?.holds.includes(clip.kind)),
  );
  return fitting
    .sort((a, b) => a.name.localeCompare(b.name))
    .map((clip) => (
      <option key={clip.id} value={clip.id}>
        {clip.name}
      </option>
    ));
});

/** Another clip in place of the one that lies there. */
export function SwapSelect({ regions, model }: { regions: RegionPart[]; model: Model }) {
  const kinds = new Set(
    regions.map((region) => model.tracks.find((track) => region.owner === `track/${track.id}`)?.kind),
  );
  const now = regions.every((region) => region.clip_id === regions[0].clip_id) ? regions[0].clip_id : "";
  const wanted = [...kinds].sort().join(" ");
  return (
    <label className="flex flex-col text-xs">
      <span className="faint">Clip under {regions.length === 1 ? "this region" : "these regions"}</span>
      <select
        className="select select-sm w-full pointer-coarse:h-11"
        aria-label="Swap the clip"
        value={now}
        onChange={(event) =>
          void editAndTell("swap_clip", { region_ids: regions.map((region) => region.id), clip_id: event.target.value })
        }
      >
        {now === "" && <option value="">several</option>}
        <ClipOptions clips={model.clips} kinds={wanted} />
      </select>
    </label>
  );
}
