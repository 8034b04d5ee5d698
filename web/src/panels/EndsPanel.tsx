import { type Ref, useEffect, useRef, useState } from "react";
import type { EditInputs, LooseEnd } from "../api/types";
import { trackOf } from "../state/catalogue";
import { editAndTell } from "../state/edits";
import { focusOn } from "../state/focus";
import { leadTo } from "../state/lead";
import { lookAgain, useLooseEnds } from "../state/looseEnds";
import { reveal, showTime } from "../state/scrolling";
import { song } from "../state/song";
import { useGhost } from "../state/useGhost";
import { setView } from "../state/view";
import { Do } from "../ui/Entry";

/** Brings the place of a loose end into view. */
function lead({ place }: LooseEnd): void {
  const { model } = song();
  const envelope = place.envelope_id ? model.envelopes[place.envelope_id] : undefined;
  const clipId = envelope?.owner.startsWith("clip/") ? envelope.owner.slice("clip/".length) : place.clip_id;
  const region =
    model.regions[place.region_ids?.[0] ?? ""] ?? Object.values(model.regions).find((one) => one.clip_id === clipId);
  if (envelope) leadTo(envelope.id, region?.id ?? null);
  else if (place.address) {
    const trackId = trackOf(model, place.address);
    focusOn(place.address);
    setView({ trackId });
    reveal(trackId);
  } else if (region) {
    setView({ trackId: region.owner.slice("track/".length) });
    reveal(region.owner.slice("track/".length));
  }
  const from = place.from_tick ?? region?.start_tick;
  if (from !== undefined) showTime(from, place.to_tick ?? from);
}

/** What the song holds that nobody meant: each leads to its place, and is mended or set aside from here. */
export function EndsPanel() {
  const list = useLooseEnds((state) => state.list);
  const count = useLooseEnds((state) => state.count);
  const aside = useLooseEnds((state) => state.aside);
  useEffect(lookAgain, []);
  const open = (list ?? []).filter(({ reason }) => reason === undefined);
  const meant = (list ?? []).filter(({ reason }) => reason !== undefined);
  return (
    <section className="flex flex-col gap-3 p-3" aria-label="Loose ends">
      <h3 className="font-bold" role="status">
        {list === null ? "Looking …" : counted(count)}
      </h3>
      {list !== null && count === 0 && (
        <p className="faint text-xs">Nothing in the song is there by mistake, as far as one can tell.</p>
      )}
      {count > open.length && <p className="faint text-xs">The first {open.length} of them:</p>}
      {[...new Set(open.map(({ check }) => check))].map((check) => (
        <Kind key={check} ends={open.filter((one) => one.check === check)} all={count === open.length} />
      ))}
      {aside > 0 && (
        <details className="border-t border-base-300 pt-2">
          <summary className="cursor-pointer font-semibold pointer-coarse:min-h-11">{aside} set aside</summary>
          <ul className="mt-1.5 flex flex-col gap-1.5">
            {meant.map((one) => (
              <MeantEnd key={`${one.check} ${one.key}`} end={one} />
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function counted(count: number): string {
  if (count === 0) return "No loose ends";
  return count === 1 ? "1 loose end" : `${count} loose ends`;
}

/** All of one kind, with what mends all of them at once. `all`: whether they are all here. */
function Kind({ ends, all }: { ends: LooseEnd[]; all: boolean }) {
  const [{ title, meaning, check, fixes }] = ends;
  const buttons = useRef(new Map<string, HTMLButtonElement>());
  /** The focus goes to an end's words; of one that goes, to its neighbour's. */
  const focusOn = (place: number) => buttons.current.get(ends[place]?.key)?.focus();
  return (
    <section className="flex flex-col gap-1.5 border-t border-base-300 pt-2">
      <h4 className="font-semibold">{title}</h4>
      <p className="faint text-xs">{meaning}</p>
      {(ends.length > 1 || !all) && (
        <div className="flex flex-wrap gap-1">
          {fixes.map(({ words }, fix) => (
            <FixButton
              key={words}
              fix={{
                words: all ? `${words}: all ${ends.length}` : `${words}: all`,
                edit: "mend_ends",
                inputs: { check, fix },
              }}
            />
          ))}
        </div>
      )}
      <ul className="flex flex-col gap-1.5">
        {ends.map((one, i) => (
          <OpenEnd
            key={one.key}
            end={one}
            button={(node) => {
              if (node) buttons.current.set(one.key, node);
              else buttons.current.delete(one.key);
            }}
            onCancel={() => focusOn(i)}
            onDone={() => focusOn(i + 1 < ends.length ? i + 1 : i - 1)}
          />
        ))}
      </ul>
    </section>
  );
}

interface OpenEndProps {
  end: LooseEnd;
  button: Ref<HTMLButtonElement>;
  onDone: () => void;
  onCancel: () => void;
}

function OpenEnd({ end, button, onDone, onCancel }: OpenEndProps) {
  const [asked, setAsked] = useState(false);
  const closed = (then: () => void) => () => {
    setAsked(false);
    then();
  };
  return (
    <li className="rounded-field bg-base-200 p-2">
      <EndWords end={end} button={button} />
      <div className="mt-1 flex flex-wrap gap-1">
        {end.fixes.map((fix) => (
          <FixButton key={fix.words} fix={fix} />
        ))}
        {!asked && <Do words="Set aside …" onDo={() => setAsked(true)} />}
      </div>
      {asked && <SetAside end={end} onDone={closed(onDone)} onCancel={closed(onCancel)} />}
    </li>
  );
}

function EndWords({ end, button }: { end: LooseEnd; button?: Ref<HTMLButtonElement> }) {
  return (
    <button
      ref={button}
      type="button"
      className="block w-full cursor-pointer text-left text-xs underline decoration-dotted pointer-coarse:min-h-11"
      onClick={() => lead(end)}
    >
      {end.text}
    </button>
  );
}

interface SetAsideProps {
  end: LooseEnd;
  onDone: () => void;
  onCancel: () => void;
}

/** Asks why it is meant to be so. */
function SetAside({ end, onDone, onCancel }: SetAsideProps) {
  const [reason, setReason] = useState("");
  const { check, key } = end;
  return (
    <form
      className="mt-1 flex flex-col gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        void editAndTell("set_ends_aside", { check, keys: [key], reason });
        onDone();
      }}
    >
      <input
        className="input input-sm w-full"
        aria-label="Why it is meant to be so"
        placeholder="Why it is meant to be so"
        maxLength={200}
        value={reason}
        // biome-ignore lint/a11y/noAutofocus: it was just asked for
        autoFocus
        onChange={(event) => setReason(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && onCancel()}
      />
      <div className="flex gap-1">
        <button type="submit" className="btn btn-sm grow">
          Set it aside
        </button>
        <button type="button" className="btn btn-sm btn-ghost" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}

function MeantEnd({ end }: { end: LooseEnd }) {
  const { check, key, reason } = end;
  return (
    <li className="rounded-field bg-base-200 p-2">
      <EndWords end={end} />
      {reason && <p className="mt-1 text-xs italic">{reason}</p>}
      <div className="mt-1 flex">
        <Do words="Take it back" onDo={() => void editAndTell("take_ends_back", { check, keys: [key] })} />
      </div>
    </li>
  );
}

/** Mends it; while the pointer is on it the song shows what that makes. */
function FixButton({ fix }: { fix: LooseEnd["fixes"][number] }) {
  const name = fix.edit as keyof EditInputs;
  const inputs = fix.inputs as EditInputs[typeof name];
  const ghost = useGhost(name, () => inputs);
  return (
    <span className="flex grow" {...ghost.props}>
      <Do
        words={fix.words}
        onDo={() => {
          ghost.done();
          void editAndTell(name, inputs);
        }}
      />
    </span>
  );
}
