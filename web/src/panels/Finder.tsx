import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { Ban, Split } from "lucide-react";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { hueStyle, parameterHue } from "../geometry/hue";
import { actingWords } from "../state/acting";
import { useChoice } from "../state/choice";
import { driveOne, macrosOf } from "../state/driving";
import { entriesOf, type Filter, type Found, search } from "../state/entries";
import { focusOn } from "../state/focus";
import { beginLearning } from "../state/mappings";
import { reveal } from "../state/scrolling";
import { useSong } from "../state/song";
import { useShown } from "../state/useShown";
import { setView, useView, viewNow } from "../state/view";
import { type Deed, DeedMenu } from "../ui/Menu";
import { useField } from "../ui/useField";
import { EmbedButton } from "./knobs/EmbedButton";
import { WhatDrives } from "./WhatDrives";

const ROW = 44;
const FILTERS: [Filter, string][] = [
  ["all", "all"],
  ["clip", "in this clip"],
  ["track", "on this track"],
  ["automated", "automated"],
];

/** Finds a parameter by a part of its name, and leads to it. */
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
      {found.length === 0 && <p>Nothing is called that here. Try a part of the name, or show all.</p>}
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
        placeholder="part of a name"
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
      {drives ? <WhatDrives words={words} /> : list}
    </section>
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
          <FoundDeeds entry={entry} />
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

/** What else may move a parameter that was found: a macro, or a control of a controller. */
function FoundDeeds({ entry }: { entry: Found }) {
  const { model } = useShown();
  const catalogue = useSong((state) => state.catalogue);
  const macros = catalogue ? macrosOf(catalogue, model).filter(({ address }) => address !== entry.address) : [];
  const name = entry.entry.name;
  const deeds: Deed[] = [
    { id: "learn", words: "Learn", what: "the control turned next turns it", act: () => beginLearning(entry.address) },
    ...macros.map(({ address, words }) => ({
      id: address,
      words: `Drive by ${words}`,
      what: "over all of its travel; its ends are set in the sum of the macro",
      act: () => driveOne(address, entry.address),
    })),
  ];
  return (
    <DeedMenu
      label={`Drive or learn ${name}`}
      title="Drive it by a macro, or learn a control"
      look="btn btn-ghost btn-xs btn-square pointer-coarse:size-11"
      head={macros.length > 0 ? name : `${name}. Macros come from Device, at the foot.`}
      deeds={deeds}
    >
      <Split size={13} />
    </DeedMenu>
  );
}
