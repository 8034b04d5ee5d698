import { ClipboardPaste, Copy, CopyPlus, Layers, Merge, Scissors, Split, Trash2, VolumeX } from "lucide-react";
import { memo, type ReactNode, useMemo } from "react";
import type { RegionPart } from "../api/types";
import { positionText } from "../geometry/viewport";
import { copy, duplicate, join, layOut, mute, paste, remove, separate, splitAtPlayhead } from "../gestures/regions";
import { useChoice } from "../state/choice";
import { edit, editAndTell } from "../state/edits";
import { keyHint } from "../state/keyMap";
import type { Lookup } from "../state/lookup";
import type { Model } from "../state/model";
import { song } from "../state/song";
import { useShown } from "../state/useShown";
import { PositionField } from "../ui/Entry";
import { MovesCopy } from "./MovesCopy";

/** What can be done with the chosen regions. */
export function ClipPanel() {
  const { model, find } = useShown();
  const regionIds = useChoice((state) => state.regionIds);
  const regions = regionIds.map((id) => model.regions[id]).filter(Boolean);
  if (regions.length === 0) {
    return (
      <div className="flex flex-col gap-2 p-4">
        <p className="faint">
          Select a region to see its clip. Shift or Ctrl chooses more of them, and so does a loop drawn over empty
          ground; with fingers, use Gather in the tool bar.
        </p>
        <div>
          <PasteButton />
        </div>
      </div>
    );
  }
  return (
    <section
      className="flex flex-col gap-2 p-3"
      aria-label={regions.length === 1 ? `Clip ${model.clips[regions[0].clip_id].name}` : `${regions.length} regions`}
    >
      {regions.length === 1 ? (
        <OneHead region={regions[0]} model={model} find={find} />
      ) : (
        <ManyHead regions={regions} model={model} />
      )}
      <Actions regions={regions} find={find} />
      <SwapSelect regions={regions} model={model} />
      {regions.length === 1 && <OneFoot region={regions[0]} model={model} />}
    </section>
  );
}

function OneHead({ region, model, find }: { region: RegionPart; model: Model; find: Lookup }) {
  const clip = model.clips[region.clip_id];
  const shared = find.sharers[clip.id];
  const count = (find.envelopes[`clip/${clip.id}`] ?? []).length;
  const position = (tick: number) => positionText(model.head.meter, tick);
  return (
    <div>
      <h3 className="text-lg font-bold">{clip.name}</h3>
      <p className="faint">
        {position(region.start_tick)} to {position(region.start_tick + region.length_ticks)}
        {clip.kind === "carrier" && ", carries moves only"}
      </p>
      <p className="faint">
        {shared > 1 ? `shared by ${shared} regions: an edit shows in all of them` : "in this region only"};{" "}
        {count === 1 ? "1 envelope" : `${count} envelopes`}
      </p>
    </div>
  );
}

function ManyHead({ regions, model }: { regions: RegionPart[]; model: Model }) {
  const names = [...new Set(regions.map((region) => model.clips[region.clip_id].name))];
  return (
    <div>
      <h3 className="text-lg font-bold">{regions.length} regions</h3>
      <p className="faint">
        {names.slice(0, 4).join(", ")}
        {names.length > 4 && ` and ${names.length - 4} more`}
      </p>
    </div>
  );
}

function Act({
  words,
  title,
  icon,
  off = false,
  pressed,
  onDo,
}: {
  words: string;
  title?: string;
  icon: ReactNode;
  off?: boolean;
  pressed?: boolean;
  onDo: () => void;
}) {
  return (
    <button
      type="button"
      className={`btn btn-sm pointer-coarse:h-11 ${pressed ? "btn-secondary" : ""}`}
      disabled={off}
      title={title}
      aria-pressed={pressed}
      onClick={onDo}
    >
      {icon} {words}
    </button>
  );
}

function Actions({ regions, find }: { regions: RegionPart[]; find: Lookup }) {
  const one = regions.length === 1 ? regions[0] : null;
  const shared = regions.some((region) => find.sharers[region.clip_id] > 1);
  const moves = regions.some((region) => (find.envelopes[`clip/${region.clip_id}`] ?? []).length > 0);
  return (
    <div className="grid grid-cols-2 gap-1.5">
      <Act words="Copy" icon={<Copy size={14} />} onDo={copy} />
      <PasteButton />
      <Act
        words="Duplicate"
        icon={<CopyPlus size={14} />}
        title={`Once more, right after itself ${keyHint("again")}`}
        onDo={duplicate}
      />
      <Act
        words="Mute"
        icon={<VolumeX size={14} />}
        title={`Neither material nor moves are heard ${keyHint("quiet")}`}
        pressed={regions.every((region) => region.muted)}
        onDo={mute}
      />
      <Act
        words="Separate"
        icon={<Split size={14} />}
        off={!shared}
        title={`${one ? "A clip of its own" : "A clip of their own, that they share"} ${keyHint("own")}`}
        onDo={() => separate()}
      />
      {!one && (
        <Act
          words="Each apart"
          icon={<Split size={14} />}
          off={!shared}
          title="A clip of its own for each"
          onDo={() => separate(true)}
        />
      )}
      {one && (
        <Act
          words="Split"
          icon={<Scissors size={14} />}
          title={`Cut in two where the playhead stands ${keyHint("split")}; at the pointer ${keyHint("split-here")}`}
          onDo={() => splitAtPlayhead(one)}
        />
      )}
      {one && (
        <Act
          words="Join"
          icon={<Merge size={14} />}
          title={`With the region that goes on with it ${keyHint("together")}`}
          onDo={() => join(one)}
        />
      )}
      <Act
        words="Lay out"
        icon={<Layers size={14} />}
        off={!moves}
        title="Turn the clip moves into points of the track lanes; what is heard stays"
        onDo={layOut}
      />
      <Act words="Remove" icon={<Trash2 size={14} />} onDo={remove} />
    </div>
  );
}

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
function SwapSelect({ regions, model }: { regions: RegionPart[]; model: Model }) {
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

function OneFoot({ region, model }: { region: RegionPart; model: Model }) {
  const clip = model.clips[region.clip_id];
  const carrier = clip.kind === "carrier";
  const { start_tick, end_tick } = model.head.range;
  const goals = useMemo(
    () =>
      Object.values(model.clips)
        .filter((other) => other.id !== clip.id)
        .sort((a, b) => a.name.localeCompare(b.name)),
    [model.clips, clip.id],
  );
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        <PositionField
          label="Start"
          tick={region.start_tick}
          onTick={(tick, say) => edit("trim_region", { region_id: region.id, start_tick: tick }, say)}
        />
        <PositionField
          label="End"
          tick={region.start_tick + region.length_ticks}
          onTick={(tick, say) => edit("trim_region", { region_id: region.id, end_tick: tick }, say)}
        />
      </div>
      {carrier && (
        <button
          type="button"
          className="btn btn-sm pointer-coarse:h-11"
          title="The clip gets the length of the range; its moves are stretched along"
          onClick={() => void editAndTell("fit_carrier", { region_id: region.id, start_tick, end_tick })}
        >
          Fit to the range {positionText(model.head.meter, start_tick)} – {positionText(model.head.meter, end_tick)}
        </button>
      )}
      <MovesCopy
        label={`Copy the moves of ${clip.name} to`}
        goals={goals}
        places={(id) => ({ from_clip_id: clip.id, to_clip_id: id })}
      />
      <p className="faint text-xs">
        {carrier
          ? "A carrier clip moves any knob of the song: pick a track, or the finder, and press the + of the knob."
          : "Drag the edges of a region to trim it, or to repeat it over more bars: moves and material stay where they are."}
      </p>
    </>
  );
}

function PasteButton() {
  const clipboard = useChoice((state) => state.clipboard);
  return (
    <button
      type="button"
      className="btn btn-sm pointer-coarse:h-11"
      disabled={!clipboard || !("regions" in clipboard)}
      title="Paste at the playhead"
      onClick={paste}
    >
      <ClipboardPaste size={14} /> Paste
    </button>
  );
}
