import type { HandOverSound } from "../../api/types";
import { choose, useHandOver } from "../../state/handOver";
import { useSong } from "../../state/song";
import { Ticked } from "./Tick";

const KINDS: Record<HandOverSound["what"], string> = {
  song: "The song as one sound (WAV)",
  tracks: "Each track by itself",
  clips: "Each clip as a loop, with its moves",
};
const NONE: HandOverSound[] = [];
const RATES = [44100, 48000, 96000] as const;
const BITS = { 16: "16 bits", 24: "24 bits", 32: "32 bits, floats" } as const;
const USUAL: Omit<HandOverSound, "what"> = { rate: 48000, bits: 24, listening: false };

/** Which sounds are made, and how. */
export function SoundFields() {
  const sounds = useHandOver((state) => state.choices.sounds) ?? NONE;
  const { from_tick, to_tick } = useHandOver((state) => state.choices);
  const range = useSong((state) => state.model.head.range);
  const silent = useSong((state) => state.silent.length > 0);
  const ways = sounds[0] ?? USUAL;
  const turn = (what: HandOverSound["what"], on: boolean) =>
    choose({ sounds: on ? [...sounds, { ...ways, what }] : sounds.filter((sound) => sound.what !== what) });
  const all = (change: Partial<HandOverSound>) => choose({ sounds: sounds.map((sound) => ({ ...sound, ...change })) });
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="font-semibold">Sounds</legend>
      {(Object.keys(KINDS) as HandOverSound["what"][]).map((what) => (
        <Ticked
          key={what}
          on={sounds.some((sound) => sound.what === what)}
          words={KINDS[what]}
          set={(on) => turn(what, on)}
        />
      ))}
      {sounds.length > 0 && (
        <div className="flex flex-wrap gap-1">
          <select
            className="select select-xs w-24 pointer-coarse:h-11"
            aria-label="Samples a second"
            value={ways.rate}
            onChange={(event) => all({ rate: Number(event.target.value) as HandOverSound["rate"] })}
          >
            {RATES.map((rate) => (
              <option key={rate} value={rate}>
                {rate / 1000} kHz
              </option>
            ))}
          </select>
          <select
            className="select select-xs w-32 pointer-coarse:h-11"
            aria-label="Bits of a sample"
            value={ways.bits}
            onChange={(event) => all({ bits: Number(event.target.value) as HandOverSound["bits"] })}
          >
            {Object.entries(BITS).map(([bits, words]) => (
              <option key={bits} value={bits}>
                {words}
              </option>
            ))}
          </select>
          {silent && (
            <Ticked
              on={ways.listening ?? false}
              words="As it is listened to now, muted and soloed"
              set={(listening) => all({ listening })}
            />
          )}
        </div>
      )}
      <Ticked
        on={from_tick !== undefined}
        words="Just the range, of song, MIDI and table"
        set={(on) =>
          choose(
            on
              ? { from_tick: range.start_tick, to_tick: range.end_tick }
              : { from_tick: undefined, to_tick: undefined },
          )
        }
      />
      {to_tick !== undefined && (from_tick !== range.start_tick || to_tick !== range.end_tick) && (
        <button
          type="button"
          className="btn btn-sm pointer-coarse:h-11"
          onClick={() => choose({ from_tick: range.start_tick, to_tick: range.end_tick })}
        >
          Take the range as it is now
        </button>
      )}
    </fieldset>
  );
}
