import { choose, useHandOver } from "../../state/handOver";

type Named = "baked" | "document" | "packed" | "midi" | "midi_clips" | "midi_regions" | "sheet";

/** One of the things that can be handed over. */
export function Tick({ of, words }: { of: Named; words: string }) {
  const on = useHandOver((state) => state.choices[of] ?? false);
  return <Ticked on={on} words={words} set={(next) => choose({ [of]: next })} />;
}

export function Ticked({ on, words, set }: { on: boolean; words: string; set: (on: boolean) => void }) {
  return (
    <label className="flex min-h-7 items-center gap-2 text-xs pointer-coarse:min-h-11">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={on}
        onChange={(event) => set(event.target.checked)}
      />
      {words}
    </label>
  );
}
