import { clsx } from "clsx";
import { Dices } from "lucide-react";
import type { EditInputs, EnvelopePart, MoveSettings } from "../../../api/types";
import { edit, editTyped } from "../../../state/edits";
import { NumberField, TextField } from "../../../ui/Fields";
import { percent, SettingSlider } from "./SettingSlider";

type Lfo = NonNullable<EnvelopePart["source"]>;
const WAVES: Lfo["wave"][] = ["sine", "triangle", "square", "saw", "ramp", "random"];
/** The waves that skew acts on. */
const SKEWED: Lfo["wave"][] = ["sine", "triangle", "square"];
const MOST_SEED = 268_435_455;

const signed = (value: number) => (value > 0 ? `+${percent(value)}` : percent(value));

interface Props {
  envelope: EnvelopePart;
  lfo: Lfo;
  found: MoveSettings | null;
}

/** What is set of an LFO: its wave, how fast it goes, and its form. */
export function LfoFields({ envelope, lfo, found }: Props) {
  const envelope_id = envelope.id;
  const set = (inputs: Omit<EditInputs["set_lfo"], "envelope_id">) => edit("set_lfo", { envelope_id, ...inputs });
  return (
    <div className="mt-2 flex flex-col gap-1.5" role="group" aria-label="LFO">
      <div className="grid grid-cols-3 gap-1" role="group" aria-label="Wave">
        {WAVES.map((wave) => (
          <button
            key={wave}
            type="button"
            className={clsx("btn btn-xs pointer-coarse:h-10", lfo.wave === wave && "btn-secondary")}
            aria-pressed={lfo.wave === wave}
            onClick={() => lfo.wave !== wave && void set({ wave })}
          >
            {wave}
          </button>
        ))}
      </div>
      <div className="flex items-end gap-1">
        <TextField
          label="A cycle lasts"
          named
          value={found?.rate[1] ?? ""}
          hint="1/8, 1/8 triplet, 2 bars; or 3.5 Hz"
          className="w-full pointer-coarse:h-11"
          onCommit={(rate) => editTyped("set_lfo", { envelope_id, rate })}
        />
        <button
          type="button"
          className="btn btn-sm pointer-coarse:h-11"
          aria-label="Half as fast"
          title="Half as fast"
          onClick={() => void set({ speed: 1 / 2 })}
        >
          ½×
        </button>
        <button
          type="button"
          className="btn btn-sm pointer-coarse:h-11"
          aria-label="Twice as fast"
          title="Twice as fast"
          onClick={() => void set({ speed: 2 })}
        >
          2×
        </button>
      </div>
      <LfoForm envelope={envelope} lfo={lfo} onSeed={(seed) => set({ seed })} />
    </div>
  );
}

interface FormProps {
  envelope: EnvelopePart;
  lfo: Lfo;
  onSeed: (seed: number) => unknown;
}

function LfoForm({ envelope, lfo, onSeed }: FormProps) {
  const envelope_id = envelope.id;
  return (
    <>
      <SettingSlider
        name="Phase"
        change="set_lfo"
        inputs={(phase) => ({ envelope_id, phase })}
        value={lfo.phase}
        min={0}
        max={1}
        text={percent}
        title="Where in its cycle it begins, with every run of its clock"
      />
      {SKEWED.includes(lfo.wave) && (
        <SettingSlider
          name="Skew"
          change="set_lfo"
          inputs={(skew) => ({ envelope_id, skew })}
          value={lfo.skew}
          min={0}
          max={1}
          text={percent}
          title="Where in the cycle its peak lies; of a square, how long it is low"
        />
      )}
      <SettingSlider
        name="Bend"
        change="set_lfo"
        inputs={(bend) => ({ envelope_id, bend })}
        value={lfo.bend}
        min={-1}
        max={1}
        text={signed}
        title="Bends the wave towards its low or its high end"
      />
      {lfo.wave === "random" && (
        <div className="flex items-center gap-2">
          <NumberField label="Seed" unit="" value={lfo.seed} min={0} max={MOST_SEED} onCommit={onSeed} />
          <button
            type="button"
            className="btn btn-xs pointer-coarse:h-11"
            onClick={() => void onSeed(Math.floor(Math.random() * MOST_SEED))}
          >
            <Dices size={13} /> Others
          </button>
        </div>
      )}
    </>
  );
}
