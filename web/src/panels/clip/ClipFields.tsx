import type { ClipPart, RegionPart } from "../../api/types";
import { barTicks } from "../../geometry/viewport";
import { edit } from "../../state/edits";
import type { Model } from "../../state/model";
import { useSong } from "../../state/song";
import { clipMeter } from "../../table/strips/useSay";
import { Do, Row, Typed } from "../../ui/Entry";
import { NumberField, TextField } from "../../ui/Fields";
import { AudioFields } from "./AudioFields";

/** The clip itself: its name, colour and length, and whether the region repeats it. */
export function ClipFields({ clip, region, model }: { clip: ClipPart; region: RegionPart; model: Model }) {
  const hues = useSong(({ catalogue }) => catalogue?.hues ?? []);
  const meter = clipMeter(clip, model.head.meters);
  const bar = barTicks(meter);
  const bars = clip.length_ticks / bar;
  const resize = async (wish: number) =>
    void edit("set_clip", { clip_id: clip.id, length_ticks: Math.max(60, Math.round(wish * bar)) });
  const count = (text: string) => {
    const [beats, unit] = text.split("/").map(Number);
    return edit("set_clip", { clip_id: clip.id, meter: { beats, unit: unit as 4 } });
  };
  return (
    <div className="flex flex-col gap-2">
      <Typed
        label="Name of the clip"
        value={clip.name}
        name="set_clip"
        inputs={(name) => ({ clip_id: clip.id, name })}
      />
      <Row title="Length, and how it plays">
        <NumberField label="Bars" unit="" value={Number(bars.toFixed(3))} min={0.016} max={1000} onCommit={resize} />
        <TextField
          label="Meter of the clip"
          value={`${meter.beats}/${meter.unit}`}
          className="w-14 text-center"
          onCommit={(text) => count(text)}
        />
        {clip.meter && (
          <Do
            words="As the song"
            title="Its bars are counted as the song's"
            onDo={() => void edit("set_clip", { clip_id: clip.id, meter: null })}
          />
        )}
        <Do
          words={region.looped ? "Play once" : "Repeat"}
          title={region.looped ? "The material sounds once in this region" : "The material repeats over the region"}
          onDo={() => void edit("loop_regions", { region_ids: [region.id], looped: !region.looped })}
        />
        {clip.kind === "notes" && (
          <Do
            words="Double"
            title="Twice as long, the material written twice: nothing heard changes"
            onDo={() => void edit("double_clip", { clip_id: clip.id })}
          />
        )}
      </Row>
      {clip.audio && <AudioFields clip={clip} audio={clip.audio} />}
      <label className="flex items-center gap-2 text-xs">
        <span className="faint">Colour</span>
        <select
          className="select select-sm pointer-coarse:h-11"
          aria-label="Colour of the clip"
          value={clip.hue ?? ""}
          onChange={({ target }) =>
            void edit("set_clip", { clip_id: clip.id, hue: (target.value || null) as ClipPart["hue"] | null })
          }
        >
          <option value="">of its track</option>
          {hues.map((hue) => (
            <option key={hue}>{hue}</option>
          ))}
        </select>
      </label>
    </div>
  );
}
