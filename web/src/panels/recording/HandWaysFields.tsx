import {
  anyArmed,
  BACKS,
  disarm,
  GOALS,
  LAPS,
  ROLES,
  SPANS,
  setHandWays,
  TAKEN,
  usePerforming,
} from "../../state/performing";
import { CLICKS, COUNTS, setWays, usePlayIn } from "../../state/playIn";
import { useSong } from "../../state/song";
import { Select, Switch } from "../../ui/Choice";
import { NumberField } from "../../ui/Fields";
import { ArmedWords } from "./ArmedWords";

/** How a pass of hands is recorded: what is taken, where it goes, how long it is written, and what is armed. */
export function HandWaysFields() {
  const ways = usePerforming();
  const { countIn, click } = usePlayIn();
  const ranged = useSong((state) => state.model.head.range.on);
  const moves = ways.taken !== "notes";
  return (
    <div className="flex flex-col gap-2" role="group" aria-label="How it is recorded">
      <ArmedWords />
      {anyArmed(ways.armed) && (
        <button
          type="button"
          className="btn btn-ghost btn-sm self-start font-normal pointer-coarse:h-11"
          onClick={disarm}
        >
          Disarm all
        </button>
      )}
      <div className="ways-grid">
        <Select label="What is taken" value={ways.taken} choices={TAKEN} onChoose={(taken) => setHandWays({ taken })} />
        {moves && (
          <>
            <Select
              label="Where moves go"
              value={ways.into}
              choices={GOALS}
              onChoose={(into) => setHandWays({ into })}
            />
            <Select
              label="How long they are written"
              value={ways.span}
              choices={SPANS}
              onChoose={(span) => setHandWays({ span })}
            />
            <Select label="Further laps" value={ways.laps} choices={LAPS} onChoose={(laps) => setHandWays({ laps })} />
            <Select
              label="When a knob comes back"
              value={ways.back}
              choices={BACKS}
              onChoose={(back) => setHandWays({ back })}
            />
            <Select
              label="How what is written acts"
              value={ways.role}
              choices={ROLES}
              onChoose={(role) => setHandWays({ role })}
            />
          </>
        )}
        <Select
          label="Counted in"
          value={String(countIn)}
          choices={COUNTS}
          onChoose={(bars) => setWays({ countIn: Number(bars) })}
        />
        <Select label="Clicks" value={click} choices={CLICKS} onChoose={(chosen) => setWays({ click: chosen })} />
      </div>
      <div className="flex flex-wrap gap-1">
        {moves && (
          <>
            <Switch
              on={ways.onGrid}
              words="on the grid"
              title="Points come to the lines of the grid"
              set={(onGrid) => setHandWays({ onGrid })}
            />
            <Switch
              on={ways.insideRange}
              words="only inside the range"
              title={
                ranged
                  ? "What lies outside the range stays as it is"
                  : "Only between the ends of the range, also while it does not repeat"
              }
              set={(insideRange) => setHandWays({ insideRange })}
            />
            <Switch
              on={ways.separate}
              words="separate shared clips"
              title="Clips that are heard elsewhere too are made separate first"
              set={(separate) => setHandWays({ separate })}
            />
          </>
        )}
        <Switch
          on={ways.pinned}
          words="stays armed"
          title="What is armed stays armed after a pass"
          set={(pinned) => setHandWays({ pinned })}
        />
      </div>
      {moves && (
        <div className="flex flex-wrap gap-3">
          <NumberField
            label="Comes back over"
            unit="s"
            value={ways.glide}
            min={0}
            max={60}
            onCommit={(glide) => setHandWays({ glide })}
          />
          <NumberField
            label="Hands late by"
            unit="ms"
            value={ways.latenessMs}
            min={0}
            max={500}
            onCommit={(latenessMs) => setHandWays({ latenessMs })}
          />
        </div>
      )}
    </div>
  );
}
