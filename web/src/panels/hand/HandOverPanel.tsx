import { Download } from "lucide-react";
import { useEffect } from "react";
import { handingOver } from "../../api/handingOver";
import type { HandOverChoices } from "../../api/types";
import { handOver, keepChoices } from "../../gestures/handOver";
import { choose, readHandOver, useHandOver } from "../../state/handOver";
import { song, useSong } from "../../state/song";
import { ForWhom } from "./ForWhom";
import { MidiFields } from "./MidiFields";
import { SoundFields } from "./SoundFields";
import { Tick } from "./Tick";

/** What leaves for other programs: chosen, made to fit, told what it costs, saved. */
export function HandOverPanel() {
  const songId = useSong((state) => state.songId);
  const revision = useSong((state) => state.revision);
  const { known, choices } = useHandOver();
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is moved may have changed
  useEffect(() => {
    if (songId !== null) void readHandOver(songId, handingOver(songId));
  }, [songId, revision]);
  if (!known) return <p className="p-3">Looking …</p>;
  return (
    <section className="flex flex-col gap-3 p-3" aria-label="Hand over">
      <ForWhom />
      <SoundFields />
      <MidiFields />
      <fieldset className="flex flex-col gap-1">
        <legend className="font-semibold">Tables and documents</legend>
        <label className="flex items-center gap-2 text-xs">
          <span className="grow">Moves as a table (CSV)</span>
          <select
            className="select select-xs w-36 pointer-coarse:h-11"
            aria-label="Moves as a table"
            value={choices.csv ?? "none"}
            onChange={(event) => choose({ csv: event.target.value as HandOverChoices["csv"] })}
          >
            <option value="none">none</option>
            <option value="points">heard, points</option>
            <option value="samples">heard, every 1/16</option>
            <option value="drawn">as drawn, by layer</option>
          </select>
        </label>
        <Tick of="document" words="The song's document (JSON)" />
        <Tick of="packed" words="The song with its sounds (packed)" />
        <Tick of="sheet" words="The song on one page (HTML)" />
        {choices.limits && <Tick of="baked" words="The song made to fit (JSON)" />}
      </fieldset>
      <Go />
    </section>
  );
}

/** The button, how far it is, and what came of it. */
function Go() {
  const { running, ready, fault, choices } = useHandOver();
  const nothing =
    !["baked", "document", "packed", "midi", "midi_clips", "midi_regions", "sheet"].some(
      (name) => choices[name as "midi"],
    ) &&
    (choices.csv ?? "none") === "none" &&
    (choices.sounds ?? []).length === 0;
  return (
    <div className="stays-below">
      {running ? (
        <>
          <progress className="progress w-full" value={running.share} max={1} aria-label="How far it is" />
          <div className="flex items-center gap-2 text-xs">
            <span className="grow truncate" role="status">
              {running.words} … {Math.round(running.share * 100)} %
            </span>
            <button type="button" className="btn btn-sm pointer-coarse:h-11" onClick={running.stop}>
              Cancel
            </button>
          </div>
        </>
      ) : (
        <button
          type="button"
          className="btn btn-primary btn-sm pointer-coarse:h-11"
          disabled={nothing || song().songId === null}
          onClick={() => {
            void keepChoices(choices).catch(() => undefined);
            void handOver();
          }}
        >
          Hand over
        </button>
      )}
      {fault && (
        <p className="text-error text-xs" role="alert">
          {fault}
        </p>
      )}
      {ready && (
        <div className="flex flex-col gap-1 text-xs">
          <a className="btn btn-sm btn-secondary pointer-coarse:h-11" href={ready.path} download={ready.name}>
            <Download size={14} /> Save {ready.name}
          </a>
          <span className="faint">
            {(ready.bytes / 1e6).toLocaleString(undefined, { maximumFractionDigits: 2 })} MB
          </span>
          {ready.notes.map((note) => (
            <span key={note}>{note}</span>
          ))}
          {ready.heard.length > 0 && (
            <table className="w-full tabular-nums">
              <thead>
                <tr className="faint text-left">
                  <th className="font-normal">sound</th>
                  <th className="font-normal">peak</th>
                  <th className="font-normal">true peak</th>
                  <th className="font-normal">LUFS</th>
                </tr>
              </thead>
              <tbody>
                {ready.heard.map(({ name, peak_db, true_peak_db, loudness }) => (
                  <tr key={name}>
                    <td className="max-w-28 truncate">{name}</td>
                    <td>{level(peak_db)}</td>
                    <td>{level(true_peak_db)}</td>
                    <td>{level(loudness)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
      )}
    </div>
  );
}

const level = (decibels: number): string => (Number.isFinite(decibels) ? decibels.toFixed(1) : "silent");
