import { type FormEvent, useRef, useState } from "react";
import { Dialog, Popover } from "react-aria-components";
import { findParameter, heldIn, ownerOf } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { useSong } from "../../state/song";
import { stopTyping, type Typing, useTyping } from "../../state/typing";
import { useShown } from "../../state/useShown";

/** A value typed where it stands: under a knob, a fader, a number. */
export function TypedValue() {
  const at = useTyping((state) => state.at);
  return at && <Field key={at.address} {...at} />;
}

const WAYS = {
  hold: ["hold it", "What moves it waits until it is handed back"],
  rest: ["its resting value", "What moves it goes on, from there where it scales or shifts"],
} as const;
type Way = keyof typeof WAYS;

function Field({ address, x, y }: Typing) {
  const catalogue = useSong((state) => state.catalogue);
  const { model, find } = useShown();
  const shown = useSong((state) => state.exact[address]?.[1]) ?? "";
  const [chosen, setChosen] = useState<Way | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const spot = useRef<HTMLSpanElement>(null);
  const text = useRef<HTMLInputElement>(null);
  const placed = catalogue && findParameter(catalogue, model, address);
  if (!placed) return null;
  const acting = (find.targets[address] ?? []).filter(({ on }) => on);
  const driven = address in find.drivers;
  const held = heldIn(ownerOf(model, address), placed);
  const moved = held || driven || acting.length > 0;
  const way = chosen ?? (held || driven || acting.some(({ role }) => role === "set") ? "hold" : "rest");
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const value = text.current?.value.trim();
    if (!value) return stopTyping();
    let refused = false;
    const say = (words: string) => {
      refused = true;
      setFault(words);
    };
    await edit("set_knob", { address, value, shown, ...(moved && { way }) }, say);
    if (!refused) stopTyping();
  };
  const name = placed.entry.name;
  return (
    <>
      <span ref={spot} className="pointer-events-none fixed size-px" style={{ left: x, top: y }} />
      <Popover className="popover" triggerRef={spot} isOpen onOpenChange={(open) => open || stopTyping()} offset={4}>
        <Dialog aria-label={`Type ${name}`} className="typed-value">
          <form onSubmit={(event) => void keep(event)}>
            <label className="grid gap-1 text-xs">
              <span className="font-semibold first-letter:uppercase">{name}</span>
              <input
                ref={text}
                className="input input-sm w-full pointer-coarse:h-11"
                autoFocus
                autoComplete="off"
                spellCheck={false}
                enterKeyHint="done"
                defaultValue={shown}
                aria-invalid={fault !== null}
                onFocus={(event) => event.currentTarget.select()}
                onChange={() => setFault(null)}
              />
            </label>
            {moved && (
              <fieldset className="mt-1 flex gap-3" aria-label="What it does to what moves">
                {(Object.keys(WAYS) as Way[]).map((one) => (
                  <label key={one} className="typed-way" title={WAYS[one][1]}>
                    <input type="radio" name="way" checked={way === one} onChange={() => setChosen(one)} />
                    {WAYS[one][0]}
                  </label>
                ))}
              </fieldset>
            )}
            {fault && (
              <p role="alert" className="field-fault">
                {fault}
              </p>
            )}
          </form>
        </Dialog>
      </Popover>
    </>
  );
}
