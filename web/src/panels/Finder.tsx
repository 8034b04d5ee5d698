import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { Ban, Ellipsis } from "lucide-react";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { CommandMenu } from "../commands/CommandMenu";
import { does, hintOf, wordsOf } from "../commands/command";
import { type FoundCommand, searchCommands } from "../commands/search";
import { hueStyle, parameterHue } from "../geometry/hue";
import { scaled } from "../geometry/text";
import { actingWords } from "../state/acting";
import { useChoice } from "../state/choice";
import { entriesOf, type Filter, type Found, search } from "../state/entries";
import { focusOn } from "../state/focus";
import { reveal } from "../state/scrolling";
import { useSong } from "../state/song";
import { useShown } from "../state/useShown";
import { setView, useView, viewNow } from "../state/view";
import { useField } from "../ui/useField";
import { EmbedButton } from "./knobs/EmbedButton";
import { WhatDrives } from "./WhatDrives";

const ROW = scaled(44);
/** So many commands stand above the parameters. */
const MOST_COMMANDS = 5;
const FILTERS: [Filter, string][] = [
  ["all", "all"],
  ["clip", "in this clip"],
  ["track", "on this track"],
  ["automated", "automated"],
];

/** Finds a parameter by a part of its name and leads to it, and a command by what it does. */
export function Finder() {
  const catalogue = useSong((state) => state.catalogue);
  const { model, find } = useShown();
  const lately = useView((state) => state.lately);
  const trackId = useView((state) => state.trackId);
  const regionId = useChoice((state) => state.regionId);
  const clipId = regionId ? (model.regions[regionId]?.clip_id ?? null) : null;
  const [words, setWords] = useState("");
  const [filter, setFilter] = useState<Filter>("all");
  const [at, setAt] = useState(0);
  const [drives, setDrives] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  useField("finder", field);
  const found = useMemo(
    () => (catalogue ? search(entriesOf(catalogue, model), find, { words, filter, trackId, clipId, lately }) : []),
    [catalogue, model, find, words, filter, trackId, clipId, lately],
  );
  const rows = useVirtualizer({
    count: found.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 6,
  });

  // What is chosen decides what can be done.
  useChoice();
  const commands = searchCommands(words).slice(0, MOST_COMMANDS);
  const move = (next: number) => {
    const place = Math.min(Math.max(next, 0), found.length - 1);
    setAt(place);
    rows.scrollToIndex(place);
  };
  const onKey = (event: KeyboardEvent) => {
    event.stopPropagation();
    const side = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[event.key];
    if (side) move(at + side);
    else if (event.key === "Enter" && found[at]) lead(found[at]);
    else if (event.key === "Enter" && commands[0]) does(commands[0].command);
    else if (event.key === "Escape") setWords("");
    else return;
    event.preventDefault();
  };
  const list = (
    <>
      <div className="flex flex-wrap gap-1" role="group" aria-label="Show">
        {FILTERS.map(([id, name]) => (
          <button
            key={id}
            type="button"
            className={`btn btn-xs pointer-coarse:h-10 ${filter === id ? "btn-secondary" : ""}`}
            aria-pressed={filter === id}
            onClick={() => setFilter(id)}
          >
            {name}
          </button>
        ))}
      </div>
      <p className="faint text-xs" role="status">
        {found.length} of {catalogue ? entriesOf(catalogue, model).length : 0} parameters
      </p>
      {found.length === 0 && commands.length === 0 && (
        <p>Nothing is called that here. Try a part of the name, or show all.</p>
      )}
      <div ref={box} className="min-h-0 grow overflow-auto" role="list" aria-label="Parameters found">
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => (
            <Row key={item.key} entry={found[item.index]} top={item.start} chosen={item.index === at} />
          ))}
        </div>
      </div>
    </>
  );
  return (
    <section className="flex min-h-0 grow flex-col gap-2 p-3" aria-label="Finder">
      <input
        ref={field}
        id="finder"
        className="input input-sm w-full shrink-0 pointer-coarse:h-11"
        type="search"
        placeholder="a knob, or what is to be done"
        aria-label="Find a parameter"
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          setAt(0);
        }}
        onKeyDown={onKey}
      />
      <div className="join w-full" role="group" aria-label="Look at">
        {[false, true].map((one) => (
          <button
            key={String(one)}
            type="button"
            className={`btn join-item btn-xs grow pointer-coarse:h-10 ${drives === one ? "btn-secondary" : ""}`}
            aria-pressed={drives === one}
            onClick={() => setDrives(one)}
          >
            {one ? "what drives what" : "parameters"}
          </button>
        ))}
      </div>
      {!drives && <CommandsFound found={commands} />}
      {drives ? <WhatDrives words={words} /> : list}
    </section>
  );
}

/** What can be done that is called like what was typed, to what is chosen or at hand. */
function CommandsFound({ found }: { found: FoundCommand[] }) {
  if (found.length === 0) return null;
  return (
    <ul className="flex shrink-0 flex-col" aria-label="Commands found">
      {found.map(({ command, about }) => {
        const why = command.why();
        return (
          <li key={`${about} ${command.id}`}>
            <button
              type="button"
              className="deed w-full items-start text-left hover:bg-base-300 disabled:opacity-50"
              disabled={why !== null}
              onClick={() => does(command)}
            >
              <span className="font-semibold">
                {wordsOf(command)} <span className="faint text-xs font-normal">{about}</span>
              </span>
              <span className="faint text-xs">{why ?? command.what + hintOf(command)}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** Unfolds the track of a parameter and brings it into focus. */
function lead(entry: Found): void {
  const { unfolded } = viewNow();
  focusOn(entry.address);
  setView({
    trackId: entry.trackId,
    unfolded: unfolded.includes(entry.trackId) ? unfolded : [...unfolded, entry.trackId],
  });
  reveal(entry.trackId);
  if (viewNow().sheet !== "find") setView({ sheet: "find" });
}

function Row({ entry, top, chosen }: { entry: Found; top: number; chosen: boolean }) {
  const words = actingWords(entry.acts);
  return (
    <div
      className={clsx("group found", chosen && "bg-base-200")}
      style={{ top, height: ROW, ...hueStyle(parameterHue(entry.address)) }}
      role="listitem"
      aria-current={chosen}
    >
      <button
        type="button"
        className="h-full min-w-0 grow cursor-pointer text-left"
        onClick={() => lead(entry)}
        title={entry.entry.automatable ? undefined : `Cannot be automated: ${entry.entry.reason}`}
        data-testid={`found-${entry.address}`}
      >
        <span className={`block truncate font-semibold ${entry.entry.automatable ? "" : "faint"}`}>
          {entry.entry.name}
        </span>
        <span className="faint block truncate text-xs">
          {entry.entry.automatable ? `${entry.track}, ${entry.device}` : `Cannot be automated: ${entry.entry.reason}`}
          {words && <b className="hue"> · {words}</b>}
        </span>
      </button>
      {entry.entry.automatable ? (
        <>
          <CommandMenu
            subject={{ kind: "knob", address: entry.address }}
            label={`What can be done with ${entry.entry.name}`}
            title="What can be done with it"
            look="btn btn-ghost btn-xs btn-square pointer-coarse:size-11"
          >
            <Ellipsis size={13} />
          </CommandMenu>
          <span className="relative h-8 w-8">
            <EmbedButton placed={entry} acts={entry.acts} focused />
          </span>
        </>
      ) : (
        <Ban size={14} className="faint shrink-0" aria-hidden="true" />
      )}
    </div>
  );
}
