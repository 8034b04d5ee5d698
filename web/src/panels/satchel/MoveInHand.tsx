import { Trash2, X } from "lucide-react";
import type { SatchelEntry } from "../../api/types";
import { dropMove, goalInHand, inputsOf } from "../../gestures/drops";
import { findParameter } from "../../state/catalogue";
import { useChoice } from "../../state/choice";
import { ROLES } from "../../state/layers";
import { type DropWays, removeMove, renameMove, setSatchel, useSatchel } from "../../state/satchel";
import { useSong } from "../../state/song";
import { useGhost } from "../../state/useGhost";
import { Do } from "../../ui/Entry";
import { TextField } from "../../ui/Fields";

const HOWS: [DropWays["how"], string, string][] = [
  ["fit", "Fit", "As long as the stretch"],
  ["repeat", "Repeat", "Over and over, to fill the stretch"],
  ["as_is", "As it is", "As long as it was"],
];

/** The move in hand: how it is dropped, and on what a press drops it. */
export function MoveInHand({ entry, focus }: { entry: SatchelEntry; focus: string | null }) {
  const ways = useSatchel((state) => state.ways);
  useChoice();
  const words = useGoalWords(focus);
  const set = (more: Partial<DropWays>) => setSatchel({ ways: { ...ways, ...more } });
  const ghost = useGhost("drop_move", () => {
    const goal = goalInHand(focus);
    return goal && inputsOf(entry, goal);
  });
  return (
    <section className="move-in-hand" aria-label="Move in hand">
      <header className="flex items-center">
        <h3 className="min-w-0 grow truncate font-bold">{entry.move.name}</h3>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square pointer-coarse:size-11"
          aria-label="Lay it down"
          title="Lay it down"
          onClick={() => setSatchel({ id: null })}
        >
          <X size={14} />
        </button>
      </header>
      <div className="flex gap-1" role="group" aria-label="Length">
        {HOWS.map(([how, name, title]) => (
          <Do key={how} words={name} title={title} on={ways.how === how} onDo={() => set({ how })} />
        ))}
      </div>
      <div className="flex gap-1">
        <Do words="Turned over" on={ways.over} onDo={() => set({ over: !ways.over })} />
        <Do words="Backwards" on={ways.backwards} onDo={() => set({ backwards: !ways.backwards })} />
      </div>
      <div className="grid grid-cols-2 gap-1.5">
        <Limit label="Foot at" value={ways.low} onText={(low) => set({ low })} />
        <Limit label="Top at" value={ways.high} onText={(high) => set({ high })} />
      </div>
      <label className="faint flex items-center gap-1.5 text-xs">
        <span className="shrink-0">a new one</span>
        <select
          className="select select-xs min-w-0 grow pointer-coarse:h-11"
          aria-label="What a new envelope does"
          value={ways.role ?? ""}
          onChange={(event) => set({ role: (event.target.value || null) as DropWays["role"] })}
        >
          <option value="">{`${entry.move.role}s, as it did`}</option>
          {ROLES.map((role) => (
            <option key={role} value={role}>{`${role}s`}</option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="btn btn-sm btn-neutral h-auto min-h-8 py-1 pointer-coarse:min-h-11"
        disabled={words === null}
        {...ghost.props}
        onClick={() => {
          const goal = goalInHand(focus);
          ghost.done();
          if (goal) void dropMove(entry, goal);
        }}
      >
        {words ? `Drop on ${words}` : "Choose what it is to move"}
      </button>
      {!entry.shipped && <OwnMove key={entry.id} entry={entry} />}
    </section>
  );
}

/** A foot or a top; what is typed holds for all drops that follow. */
function Limit({ label, value, onText }: { label: string; value: string; onText: (text: string) => void }) {
  return (
    <label className="flex flex-col text-xs">
      <span className="faint">{label}</span>
      <input
        className="input input-sm w-full border-base-300 bg-base-200 px-1.5 pointer-coarse:h-11"
        aria-label={label}
        placeholder="as it was"
        value={value}
        onChange={(event) => onText(event.target.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
    </label>
  );
}

/** What a press would drop it on, in words. */
function useGoalWords(focus: string | null): string | null {
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const goal = goalInHand(focus);
  if (!goal || !catalogue) return null;
  const envelope = goal.envelope_id ? model.envelopes[goal.envelope_id] : undefined;
  const address = envelope?.target ?? goal.address ?? "";
  const name = findParameter(catalogue, model, address)?.entry.name;
  if (!name) return null;
  const clipId = goal.clip_id ?? (envelope?.owner.startsWith("clip/") ? envelope.owner.slice("clip/".length) : null);
  return `${name} ${clipId ? `in ${model.clips[clipId]?.name}` : "on its lane"}`;
}

/** Name and tags of a move of one's own. */
function OwnMove({ entry }: { entry: SatchelEntry }) {
  const { name, tags } = entry.move;
  const said = async (act: (say: (words: string) => void) => Promise<unknown>): Promise<string | null> => {
    let fault: string | null = null;
    await act((words) => {
      fault = words;
    });
    return fault;
  };
  const look = "w-full border-base-300 bg-base-200 pointer-coarse:h-11";
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-1">
      <TextField
        named
        label="Name"
        value={name}
        className={look}
        onCommit={(text) => said((say) => renameMove(entry, text, tags.join(" "), say))}
      />
      <TextField
        named
        label="Tags"
        value={tags.join(" ")}
        hint="apart by blanks"
        className={look}
        onCommit={(text) => said((say) => renameMove(entry, name, text, say))}
      />
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square pointer-coarse:size-11"
        aria-label={`Let go of ${name}`}
        title="Let go of it"
        onClick={() => void removeMove(entry)}
      >
        <Trash2 size={14} />
      </button>
    </div>
  );
}
