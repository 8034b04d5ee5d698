import type { ClipPart, Px, RegionPart, Ticks } from "../../api/types";
import { linesIn, ownMeter, tickToX } from "../../geometry/viewport";
import { useSong } from "../../state/song";
import { useView } from "../../state/view";

const NEAREST: Px = 20;

interface Props {
  regions: RegionPart[];
  clips: Record<string, ClipPart>;
  view: [from: Ticks, to: Ticks];
  height: Px;
}

/** Bars of clips that count in a time signature of their own, over each repeat of theirs, with their numbers. */
export function ClipBars({ regions, clips, view: [from, to], height }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const passes = useSong((state) => state.passes);
  return regions.map((region) => {
    const clip = clips[region.clip_id];
    if (!clip?.meter) return null;
    const meter = ownMeter(clip.meter);
    if (meter.bar_ticks * pxPerTick < NEAREST) return null;
    return (passes[region.id] ?? [])
      .filter(([start, end]) => end > from && start < to)
      .flatMap(([start, end, into]) =>
        linesIn([meter], into, into + end - start, ({ bar_ticks }) => bar_ticks).map(([tick]) => (
          <span
            key={`${region.id} ${start} ${tick}`}
            className="clip-bar"
            style={{ left: tickToX({ pxPerTick }, start + tick - into), height }}
            aria-hidden="true"
          >
            {tick / meter.bar_ticks + 1}
          </span>
        )),
      );
  });
}
