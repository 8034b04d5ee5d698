import { useVirtualizer } from "@tanstack/react-virtual";
import { useMemo, useRef, useState } from "react";
import { hueStyle, parameterHue } from "../geometry/hue";
import { scaled } from "../geometry/text";
import { controlWords } from "../gestures/midi/reader";
import { trackOf } from "../state/catalogue";
import { focusOn } from "../state/focus";
import { leadTo } from "../state/lead";
import { useMappings } from "../state/mappings";
import { reveal } from "../state/scrolling";
import { song, useSong } from "../state/song";
import { useShown } from "../state/useShown";
import { setView } from "../state/view";
import { type Driving, drivingsOf, type Side, sortedBy } from "../state/whatDrives";

const ROW = scaled(52);
const SIDES: [Side, string][] = [
  ["driver", "by what drives"],
  ["driven", "by what is driven"],
];

/** What drives what: moves, macros and controllers with the parameters they drive, each leading there. */
export function WhatDrives({ words }: { words: string }) {
  const catalogue = useSong((state) => state.catalogue);
  const { model, find } = useShown();
  const ours = useMappings((state) => state.song);
  const all = useMappings((state) => state.all);
  const [side, setSide] = useState<Side>("driver");
  const box = useRef<HTMLDivElement>(null);
  const wanted = words.toLowerCase();
  const list = useMemo(() => {
    const controls = [...ours, ...all].flatMap(({ device, control, target: { address } }) =>
      address ? [{ words: `${device}, ${controlWords(control)}`, address }] : [],
    );
    const found = catalogue ? drivingsOf(catalogue, model, find, controls) : [];
    const fits = ({ driver, driven, kind }: Driving) => `${kind} ${driver} ${driven}`.toLowerCase().includes(wanted);
    return sortedBy(found.filter(fits), side);
  }, [catalogue, model, find, ours, all, side, wanted]);
  const rows = useVirtualizer({
    count: list.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  return (
    <>
      <div className="flex flex-wrap gap-1" role="group" aria-label="In order">
        {SIDES.map(([id, name]) => (
          <button
            key={id}
            type="button"
            className={`btn btn-xs pointer-coarse:h-10 ${side === id ? "btn-secondary" : ""}`}
            aria-pressed={side === id}
            onClick={() => setSide(id)}
          >
            {name}
          </button>
        ))}
      </div>
      <p className="faint text-xs" role="status">
        {list.length} that drive something
      </p>
      <div ref={box} className="min-h-0 grow overflow-auto" role="list" aria-label="What drives what">
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => (
            <Row key={item.key} driving={list[item.index]} top={item.start} side={side} />
          ))}
        </div>
      </div>
    </>
  );
}

/** Brings a parameter into focus on its track, which comes into sight. */
function lead(address: string): void {
  const trackId = trackOf(song().model, address);
  focusOn(address);
  setView({ trackId });
  reveal(trackId);
}

/** To what drives: the envelope in its first region, the macro, or, of a controller, what it turns. */
function leadToDriver({ envelopeId, macro, target }: Driving): void {
  if (!envelopeId) return lead(macro ?? target);
  const { envelopes, regions } = song().model;
  const clipId = envelopes[envelopeId]?.owner.split("/")[1];
  const region = Object.values(regions).find(({ clip_id }) => clip_id === clipId);
  leadTo(envelopeId, region?.id ?? null);
}

function Row({ driving, top, side }: { driving: Driving; top: number; side: Side }) {
  const { kind, driver, driven, target } = driving;
  const ends = [
    <button
      key="driver"
      type="button"
      className="block w-full cursor-pointer truncate text-left"
      title={`To ${driver}`}
      onClick={() => leadToDriver(driving)}
    >
      <b className="hue">{kind}</b> {driver}
    </button>,
    <button
      key="driven"
      type="button"
      className="block w-full cursor-pointer truncate text-left font-semibold"
      title={`To ${driven}`}
      onClick={() => lead(target)}
    >
      {driven}
    </button>,
  ];
  return (
    <div className="found" style={{ top, height: ROW, ...hueStyle(parameterHue(target)) }} role="listitem">
      <div className="min-w-0 grow text-xs">{side === "driver" ? ends : ends.reverse()}</div>
    </div>
  );
}
