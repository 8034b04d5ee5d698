import { clsx } from "clsx";
import { Download, Upload } from "lucide-react";
import { useEffect } from "react";
import type { SatchelEntry } from "../../api/types";
import { chooseFiles } from "../../gestures/chooseFile";
import { dropMove, goalInHand, pressMove } from "../../gestures/drops";
import { holdable } from "../../gestures/hold";
import { found, readSatchel, setSatchel, takeMoves, useSatchel, usesOf } from "../../state/satchel";
import { Fold } from "../../ui/Fold";
import { KeepMove } from "./KeepMove";
import { MoveInHand } from "./MoveInHand";
import { Outline } from "./Outline";
import { ShapePad } from "./ShapePad";

/** Kept moves: found, dropped on whatever is at hand, kept, taken along. */
export function SatchelPanel({ focus }: { focus: string | null }) {
  const satchel = useSatchel();
  const { list, id, words, tag, near } = satchel;
  useEffect(() => void readSatchel(), []);
  const shown = found(satchel);
  const entry = list?.find((one) => one.id === id);
  return (
    <section className="flex min-h-0 grow flex-col gap-2 p-3 pointer-coarse:min-h-max" aria-label="Satchel">
      <input
        type="search"
        className="input input-sm w-full shrink-0 pointer-coarse:h-11"
        placeholder="part of a name, or a tag"
        aria-label="Find a move"
        value={words}
        onChange={(event) => setSatchel({ words: event.target.value })}
        onKeyDown={(event) => event.stopPropagation()}
      />
      <div className="kept-uses" role="group" aria-label="What it is for">
        {[null, ...usesOf(list ?? [])].map((use) => (
          <button
            key={use ?? "all"}
            type="button"
            className={clsx("kept-use btn btn-xs", tag === use && "btn-secondary")}
            aria-pressed={tag === use}
            onClick={() => setSatchel({ tag: use })}
          >
            {use ?? "all"}
          </button>
        ))}
      </div>
      <p className="faint flex shrink-0 items-center gap-2 text-xs" role="status">
        {list ? `${shown.length} of ${list.length} moves` : "Looking …"}
        {near && (
          <button type="button" className="underline" onClick={() => setSatchel({ near: null })}>
            by likeness: let that be
          </button>
        )}
      </p>
      <ul className="kept-moves" aria-label="Moves">
        {shown.map((one) => (
          <Card key={one.id} entry={one} taken={one.id === id} focus={focus} />
        ))}
        {list && shown.length === 0 && <li className="faint text-xs">No move is called that. Try a shorter word.</li>}
      </ul>
      {entry && <MoveInHand entry={entry} focus={focus} />}
      <div className="shrink-0">
        <Fold id="satchel-keep" words="Keep what is at hand">
          <KeepMove />
        </Fold>
        <Fold id="satchel-like" words="Find by a shape">
          <ShapePad />
        </Fold>
        <Fold id="satchel-file" words="Take along">
          <div className="flex gap-1">
            <a
              className="btn btn-xs h-7 grow font-medium pointer-coarse:h-11"
              title="All moves of your own, as one JSON file"
              href="/api/moves/file"
              download="satchel.json"
            >
              <Download size={13} aria-hidden="true" /> Save as a file
            </a>
            <button
              type="button"
              className="btn btn-xs h-7 grow font-medium pointer-coarse:h-11"
              title="Moves of a JSON file; those you have already are left"
              onClick={() => void chooseFiles("application/json,.json").then(([file]) => file && takeMoves(file))}
            >
              <Upload size={13} aria-hidden="true" /> Take in a file
            </button>
          </div>
        </Fold>
      </div>
    </section>
  );
}

/** One move: pressed it is in hand, dragged it goes to where it is dropped, with Enter to what is at hand. */
function Card({ entry, taken, focus }: { entry: SatchelEntry; taken: boolean; focus: string | null }) {
  const { move, outline, rate } = entry;
  return (
    <li>
      <button
        ref={holdable}
        type="button"
        className={`kept-move ${taken ? "kept-move-taken" : ""}`}
        aria-pressed={taken}
        title={`${move.name}: drag it onto a clip or a lane, or press it`}
        onPointerDown={(event) => pressMove(event, entry)}
        onClick={() => setSatchel({ id: entry.id })}
        onContextMenu={(event) => event.preventDefault()}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          setSatchel({ id: entry.id });
          const goal = goalInHand(focus);
          if (goal) void dropMove(entry, goal);
        }}
        data-testid={`kept-${entry.id}`}
      >
        <Outline corners={outline} className="kept-outline" />
        <span className="block truncate text-xs font-semibold">{move.name}</span>
        <span className="faint block truncate text-xs">{rate ?? move.tags.join(", ")}</span>
      </button>
    </li>
  );
}
