import { useMemo, useState } from "react";
import type { Corners, Ticks, TrackPart } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { scaled } from "../../geometry/text";
import { acting } from "../../state/acting";
import { findParameter } from "../../state/catalogue";
import type { Lookup } from "../../state/lookup";
import type { Model } from "../../state/model";
import { type Mover, moversOn } from "../../state/movers";
import { useSong } from "../../state/song";
import { roomForSong } from "../../state/stage";
import { useView } from "../../state/view";
import { OneStop } from "../../ui/OneStop";
import { MoveMark } from "../MoveMark";
import { SmallCurve } from "../SmallCurve";
import { Knob } from "./Knob";

/** So many are shown at first. */
const MOST = 24;
const WIDTH = scaled(76);
const HEIGHT = scaled(18);
const NO_CORNERS: Corners = [];

/** The bars in view; told again once a scroll has come to rest. */
function useBarsInView(): [from: Ticks, to: Ticks] {
  const from = useView((state) => state.scrollTick);
  const pxPerTick = useView((state) => state.pxPerTick);
  const open = useView((state) => state.panelOpen);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the panel takes room from the song
  return useMemo(() => [from, from + (roomForSong() || 800) / pxPerTick], [from, pxPerTick, open]);
}

interface Props {
  track: TrackPart;
  model: Model;
  find: Lookup;
  focus: string | null;
}

/** First at the foot: volume, pan and all that anything moves, each with what is heard in the bars in view. */
export function WhatMoves({ track, model, find, focus }: Props) {
  const bars = useBarsInView();
  const [all, setAll] = useState(false);
  const movers = useMemo(() => moversOn(model, track.id, bars), [model, track.id, bars]);
  const shown = all ? movers : movers.slice(0, MOST);
  return (
    <section className="what-moves" aria-label={`What moves on ${track.name}`}>
      <h3 className="px-1 text-xs font-bold">What moves on {track.name}</h3>
      <OneStop>
        <div className="flex gap-1">
          {shown.map((mover) => (
            <Moved key={mover.address} mover={mover} bars={bars} find={find} focus={focus} />
          ))}
          {movers.length > shown.length && (
            <button type="button" className="btn btn-ghost btn-sm self-center" onClick={() => setAll(true)}>
              {movers.length - shown.length} more
            </button>
          )}
        </div>
      </OneStop>
    </section>
  );
}

/** One knob, its small curve, and a mark for each envelope that moves it. */
function Moved(props: { mover: Mover; bars: [Ticks, Ticks]; find: Lookup; focus: string | null }) {
  const { mover, bars, find, focus } = props;
  const { address, envelopes } = mover;
  const model = useSong((state) => state.model);
  const catalogue = useSong((state) => state.catalogue);
  const placed = catalogue && findParameter(catalogue, model, address);
  if (!placed) return null;
  return (
    <div className="moved" style={hueStyle(parameterHue(address))}>
      <Knob owner={placed.owner} placed={placed} acts={acting(find, address)} focused={focus === address} moving />
      <HeardCurve address={address} bars={bars} />
      <span className="flex h-4 items-center gap-0.5">
        {envelopes.map((envelope) => (
          <MoveMark key={envelope.id} envelope={envelope} name={placed.entry.name} />
        ))}
        {envelopes.length === 0 && find.drivers[address] && <span className="faint text-xs leading-4">macro</span>}
      </span>
    </div>
  );
}

/** What is heard of a parameter in the bars in view. */
function HeardCurve({ address, bars: [from, to] }: { address: string; bars: [Ticks, Ticks] }) {
  const corners = useSong(({ heard, preview }) => preview?.heard[address] ?? heard[address]) ?? NO_CORNERS;
  return (
    <SmallCurve
      corners={corners}
      from={from}
      to={to}
      width={WIDTH}
      height={HEIGHT}
      look="heard"
      testId={`curve-of-${address}`}
    />
  );
}
