import { ChevronLeft, ChevronRight } from "lucide-react";
import type { TrackPart } from "../../api/types";
import { chooseInput, SIMULATED, simulatedKeyboard } from "../../gestures/inputs";
import { CLICKS, COUNTS, setPlayIn, setWays, usePlayIn } from "../../state/playIn";
import { Select, Switch } from "../../ui/Choice";
import { NumberField } from "../../ui/Fields";
import { IconButton } from "../../ui/IconButton";
import { RecordButton } from "./RecordButton";
import { TapTempo } from "./TapTempo";

/** How what is played is taken in: what plays, the count, the click, whether it adds. */
export function WaysToPlay({ track, narrow }: { track: TrackPart; narrow: boolean }) {
  const ways = usePlayIn();
  const octave = (steps: number) => setWays({ lowest: Math.min(Math.max(ways.lowest + steps * 12, 0), 96) });
  return (
    <div className={narrow ? "ways ways-narrow" : "ways"} role="group" aria-label={`Playing ${track.name}`}>
      <RecordButton words />
      <Select
        label="Count-in"
        className="w-30"
        value={String(ways.countIn)}
        choices={COUNTS}
        onChoose={(bars) => setWays({ countIn: Number(bars) })}
      />
      <Select
        label="Click"
        className="w-38"
        value={ways.click}
        choices={CLICKS}
        onChoose={(click) => setWays({ click })}
      />
      <Switch
        on={ways.replace}
        words="replaces"
        title="What it goes over is replaced; else it adds"
        set={(replace) => setWays({ replace })}
      />
      <Switch
        on={ways.onGrid}
        words="on the grid"
        title="Notes begin on the grid"
        set={(onGrid) => setWays({ onGrid })}
      />
      {!narrow && (
        <Switch
          on={ways.typing}
          words="type to play"
          title="The letters of the computer's keyboard play; Escape ends it"
          set={(typing) => setPlayIn({ typing })}
        />
      )}
      <span className="flex items-center">
        <IconButton label="An octave lower" off={ways.lowest <= 0} onPress={() => octave(-1)}>
          <ChevronLeft size={15} />
        </IconButton>
        <span className="faint text-xs">octave</span>
        <IconButton label="An octave higher" off={ways.lowest >= 96} onPress={() => octave(1)}>
          <ChevronRight size={15} />
        </IconButton>
      </span>
      <TapTempo />
      <select
        className="select select-sm w-38"
        aria-label="Keyboard"
        value={ways.input}
        onChange={(event) => chooseInput(event.target.value)}
      >
        <option value="">keys here only</option>
        {ways.inputs.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {ways.input === SIMULATED && (
        <button type="button" className="btn btn-sm" onClick={() => simulatedKeyboard.phrase()}>
          Play its phrase
        </button>
      )}
      {ways.input !== "" && (
        <NumberField
          label="Late by"
          unit="ms"
          value={ways.latenessMs}
          min={0}
          max={500}
          onCommit={(latenessMs) => setWays({ latenessMs })}
        />
      )}
    </div>
  );
}
