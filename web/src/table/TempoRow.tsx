import { useEffect, useState } from "react";
import type { Ticks } from "../api/types";
import { stripsOf } from "../geometry/heights";
import { hueStyle, parameterHue } from "../geometry/hue";
import { xToTick } from "../geometry/viewport";
import { player } from "../sound/player";
import { TEMPO, tempoFound } from "../state/catalogue";
import { drawTrack } from "../state/drawing";
import { focusOn } from "../state/focus";
import type { Lookup } from "../state/lookup";
import type { Model } from "../state/model";
import { useReading } from "../state/reading";
import { useSong } from "../state/song";
import { setTempoRow } from "../state/stage";
import { useTransport } from "../state/transport";
import { setView, viewNow } from "../state/view";
import { RowEdge } from "./RowEdge";
import { LaneStrip } from "./strips/LaneStrip";

/** Minutes, seconds and hundredths. */
function clockText(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  return `${minutes}:${(seconds - minutes * 60).toFixed(2).padStart(5, "0")}`;
}

/** Whether the tempo has lanes of its own. */
export const tempoLanes = (find: Lookup) =>
  (find.targets[TEMPO] ?? []).filter(({ owner }) => owner.startsWith("track/"));

/** The lane of the tempo, under the bar numbers; beside it the clock's time at the pointer, else at the playhead. */
export function TempoRow({
  model,
  find,
  view,
  headerWidth,
}: {
  model: Model;
  find: Lookup;
  view: [number, number];
  headerWidth: number;
}) {
  const catalogue = useSong((state) => state.catalogue);
  const [pointer, setPointer] = useState<Ticks | null>(null);
  const master = model.tracks[model.tracks.length - 1];
  useEffect(() => drawTrack(master.id), [master.id]);
  if (!catalogue) return null;
  return (
    <section ref={setTempoRow} className="tempo-row" style={hueStyle(parameterHue(TEMPO))} aria-label="Tempo">
      <button
        type="button"
        className="tempo-head"
        style={{ width: headerWidth }}
        title="Why is it this tempo?"
        onClick={() => {
          focusOn(TEMPO);
          setView({ trackId: master.id, sheet: "at-hand" });
        }}
      >
        <b>Tempo</b>
        <Reading pointer={pointer} />
      </button>
      <div
        className="min-w-0 grow"
        onPointerMove={(event) => {
          const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
          setPointer(Math.max(0, Math.round(xToTick(viewNow(), x))));
        }}
        onPointerLeave={() => setPointer(null)}
      >
        <LaneStrip
          track={master}
          lanes={tempoLanes(find)}
          placed={tempoFound(catalogue, model)}
          view={view}
          row={TEMPO}
        />
      </div>
      <RowEdge id={TEMPO} name="Tempo" usual={stripsOf().lane} />
    </section>
  );
}

/** The tempo, and the clock's time, at the pointer or at the playhead. */
function Reading({ pointer }: { pointer: Ticks | null }) {
  const at = useTransport((state) => pointer ?? Math.round(state.playhead));
  const bpm = useReading({ address: TEMPO, tick: at });
  return (
    <>
      <span className="hue tabular-nums">{bpm}</span>
      <span className="faint text-xs tabular-nums" data-testid="tempo-clock">
        {clockText(player.secondsAt(at))}
      </span>
    </>
  );
}
