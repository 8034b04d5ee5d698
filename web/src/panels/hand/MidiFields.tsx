import { useState } from "react";
import { choose, useHandOver } from "../../state/handOver";
import { NumberField } from "../../ui/Fields";
import { ControllerTable } from "./ControllerTable";
import { Tick } from "./Tick";

/** MIDI files, and by which controllers moves go out. */
export function MidiFields() {
  const { known, choices } = useHandOver();
  const [open, setOpen] = useState(false);
  const any = choices.midi || choices.midi_clips || choices.midi_regions;
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="font-semibold">MIDI files, moves as controllers</legend>
      <Tick of="midi" words="The whole song" />
      <Tick of="midi_clips" words="Each clip, with its moves" />
      <Tick of="midi_regions" words="Each region, as it is heard" />
      {any && (
        <>
          <div className="flex flex-wrap gap-x-3 gap-y-1">
            <NumberField
              label="Within"
              unit="%"
              min={0}
              max={20}
              value={(choices.error ?? 0.01) * 100}
              onCommit={(share) => choose({ error: share / 100 })}
            />
            <NumberField
              label="At most (0: any number)"
              unit="a second"
              min={0}
              max={1000}
              value={choices.per_second ?? 0}
              onCommit={(number) => choose({ per_second: number > 0 ? number : undefined })}
            />
          </div>
          <button type="button" className="btn btn-sm pointer-coarse:h-11" onClick={() => setOpen(true)}>
            Controllers … ({known?.controllers.length ?? 0})
          </button>
          {(known?.without.length ?? 0) > 0 && (
            <p className="text-warning text-xs">No controller is left for {known?.without.join(", ")}.</p>
          )}
        </>
      )}
      {open && <ControllerTable onClose={() => setOpen(false)} />}
    </fieldset>
  );
}
