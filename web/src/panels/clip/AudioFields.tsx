import type { ClipPart } from "../../api/types";
import { edit } from "../../state/edits";
import { useSoundList } from "../../state/soundList";
import { Do, Row } from "../../ui/Entry";
import { NumberField } from "../../ui/Fields";

/** How fast a recorded clip is, and from where in its sound it begins: guessed when it came, set right here. */
export function AudioFields({ clip, audio }: { clip: ClipPart; audio: NonNullable<ClipPart["audio"]> }) {
  const first = useSoundList(({ list }) => list?.find(({ id }) => id === audio.sound)?.guess?.first_seconds ?? null);
  const beats = clip.length_ticks / 960;
  const faster = (factor: number) => void edit("set_audio", { clip_id: clip.id, bpm: audio.bpm * factor });
  const begin = async (seconds: number) => void edit("set_audio", { clip_id: clip.id, start_seconds: seconds });
  return (
    <Row title={`${Number(beats.toFixed(2))} beats at ${Number(audio.bpm.toFixed(2))} BPM`}>
      <Do words="Half the beats" title="It is half as fast as it seems" onDo={() => faster(0.5)} />
      <Do words="Twice the beats" title="It is twice as fast as it seems" onDo={() => faster(2)} />
      <NumberField
        label="Beats"
        unit=""
        value={Number(beats.toFixed(3))}
        min={0.1}
        max={4000}
        onCommit={async (wish) => faster(wish / beats)}
      />
      <NumberField
        label="Begins at"
        unit="s"
        value={Number((audio.start_seconds ?? 0).toFixed(3))}
        min={0}
        max={1200}
        onCommit={begin}
      />
      <Do
        words="Keep the pitch"
        title="At another tempo it is stretched; else it is as high as it is fast"
        on={audio.stretched ?? false}
        onDo={() => void edit("set_audio", { clip_id: clip.id, stretched: !audio.stretched })}
      />
      <Do
        words="Backwards"
        title="From its end to its start"
        on={audio.backwards ?? false}
        onDo={() => void edit("set_audio", { clip_id: clip.id, backwards: !audio.backwards })}
      />
      {first !== null && first > 0.005 && Math.abs(first - (audio.start_seconds ?? 0)) > 0.005 && (
        <Do words="Begin at the first beat" onDo={() => void begin(first)} />
      )}
    </Row>
  );
}
