import { useEffect } from "react";
import type { EditInputs, LooseEnd } from "../api/types";
import { trackOf } from "../state/catalogue";
import { editAndTell } from "../state/edits";
import { focusOn } from "../state/focus";
import { lookAgain, useLooseEnds } from "../state/looseEnds";
import { song } from "../state/song";
import { useGhost } from "../state/useGhost";
import { setView } from "../state/view";
import { leadTo } from "../table/lead";
import { reveal, showTime } from "../table/scrolling";
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

/** What the song holds that nobody meant: each leads to its place, and is mended from here. */
export function EndsPanel() {
  const list = useLooseEnds((state) => state.list);
  const count = useLooseEnds((state) => state.count);
  useEffect(lookAgain, []);
  const checks = [...new Set((list ?? []).map(({ check }) => check))];
  return (
    <section className="flex flex-col gap-3 p-3" aria-label="Loose ends">
      <h3 className="font-bold" role="status">
        {list === null
          ? "Looking …"
          : list.length === 0
            ? "No loose ends"
            : count === 1
              ? "1 loose end"
              : `${count} loose ends`}
      </h3>
      {list?.length === 0 && (
        <p className="faint text-xs">Nothing in the song is there by mistake, as far as one can tell.</p>
      )}
      {list !== null && count > list.length && <p className="faint text-xs">The first {list.length} of them:</p>}
      {checks.map((check) => {
        const ends = (list ?? []).filter((one) => one.check === check);
        return (
          <section key={check} className="flex flex-col gap-1.5 border-t border-base-300 pt-2">
            <h4 className="font-semibold">{ends[0].title}</h4>
            <p className="faint text-xs">{ends[0].meaning}</p>
            <ul className="flex flex-col gap-1.5">
              {ends.map((one) => (
                <End key={one.key} end={one} />
              ))}
            </ul>
          </section>
        );
      })}
    </section>
  );
}

function End({ end }: { end: LooseEnd }) {
  return (
    <li className="rounded-field bg-base-200 p-2">
      <button
        type="button"
        className="block w-full cursor-pointer text-left text-xs underline decoration-dotted pointer-coarse:min-h-11"
        onClick={() => lead(end)}
      >
        {end.text}
      </button>
      <div className="mt-1 flex flex-wrap gap-1">
        {end.fixes.map((fix) => (
          <FixButton key={fix.words} fix={fix} />
        ))}
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
