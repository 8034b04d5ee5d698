import { BAR_COMMANDS } from "../commands";
import { barsInWords } from "../commands/bars";
import { entryOf } from "../commands/command";
import { useChoice } from "../state/choice";
import { useSong } from "../state/song";
import { HistoryList } from "./HistoryMenu";
import { OutputChoices } from "./OutputMenu";
import { MeterField, TempoField } from "./SongFields";
import { ZoomButtons } from "./TopBar";
import { RangeButton } from "./Transport";

/** What the top bar has no room for on a phone. */
export function SongPanel() {
  // What can be done with bars changes with the song and with what was copied.
  useSong((state) => state.model);
  useChoice((state) => state.clipboard);
  return (
    <section className="flex flex-wrap items-center gap-2 p-3" aria-label="Song settings">
      <TempoField />
      <MeterField />
      <RangeButton />
      <ZoomButtons />
      <p className="faint w-full text-xs">
        Press the bar numbers to move the playhead; drag the ends of the range that repeats.
      </p>
      <div className="w-full">
        <OutputChoices />
      </div>
      <details className="w-full">
        <summary className="cursor-pointer text-sm font-semibold pointer-coarse:min-h-11">What was done</summary>
        <HistoryList />
      </details>
      <fieldset className="flex w-full flex-col">
        <legend className="faint pb-1 text-xs">{barsInWords()}</legend>
        {BAR_COMMANDS.map(entryOf).map(({ id, words, what, act, off }) => (
          <button
            key={id}
            type="button"
            className="deed items-start text-left hover:bg-base-300 disabled:opacity-50"
            disabled={off}
            onClick={() => void act()}
          >
            <span className="font-semibold">{words}</span>
            <span className="faint text-xs">{what}</span>
          </button>
        ))}
      </fieldset>
    </section>
  );
}
