import { memo } from "react";
import type { ClipPart, EnvelopePart, Pass, RegionPart, Window } from "../api/types";
import { hueStyle, parameterHue } from "../draw/hue";
import { windowPath } from "../draw/corners";
import { pressRegion, regionKey } from "../gestures/regions";
import { Material } from "../unfold/Material";
import { useSong } from "./store";
import { bandFor, positionText, tickToX, valueToY } from "./viewport";

interface Props {
  region: RegionPart;
  clip: ClipPart;
  shared: number;
  height: number;
  envelopes: EnvelopePart[];
  folded: boolean;
  view: [from: number, to: number];
}

const NO_WINDOWS: Record<string, Window[]> = {};
const NO_PASSES: Pass[] = [];

/** One region: its name, its material, and folded also a small drawing of its envelopes. */
export const RegionBox = memo(function RegionBox({ region, clip, shared, height, envelopes, folded, view }: Props) {
  const pxPerTick = useSong((state) => state.view.pxPerTick);
  const selected = useSong((state) => state.regionId === region.id);
  const meter = useSong((state) => state.model.head.meter);
  const passes = useSong((state) => state.preview?.passes[region.id] ?? state.passes[region.id]) ?? NO_PASSES;
  const left = tickToX({ pxPerTick }, region.start_tick);
  const width = tickToX({ pxPerTick }, region.length_ticks);
  const end = region.start_tick + region.length_ticks;
  const [from, to] = [Math.max(region.start_tick, view[0]), Math.min(end, view[1])];
  const name = shared > 1 ? `${clip.name}, shared by ${shared}` : clip.name;
  return (
    <div
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={`${name}, region at ${positionText(meter, region.start_tick)}`}
      data-testid={region.id}
      className={`absolute top-0.5 cursor-grab overflow-clip rounded-lg border ${selected ? "held ring-2 ring-[var(--hue)]" : ""}`}
      style={{ left: left + 1, width: Math.max(6, width - 2), height: height - 4, borderColor: "var(--hue)", background: "color-mix(in oklab, var(--hue) 13%, var(--strip))" }}
      onPointerDown={(event) => pressRegion(event, region)}
      onKeyDown={(event) => regionKey(event, region)}
    >
      {to > from && (
        <div className="hue absolute top-0" style={{ left: tickToX({ pxPerTick }, from - region.start_tick) }}>
          {!folded && <Material clip={clip} passes={passes} from={from} to={to} height={height - 4} />}
        </div>
      )}
      {passes.slice(1).map(([start]) => (
        <i key={start} className="absolute bottom-0 h-2 border-l" style={{ left: tickToX({ pxPerTick }, start - region.start_tick), borderColor: "var(--hue)" }} />
      ))}
      {folded && <SmallCurves region={region} envelopes={envelopes} height={height - 4} />}
      <span className="hue pointer-events-none sticky inline-block max-w-full truncate px-1.5 text-[11px] leading-[17px] font-semibold" style={{ left: "var(--header-width)" }}>
        {clip.name}
        {shared > 1 && <span className="font-normal"> · {shared}×</span>}
      </span>
    </div>
  );
});

function SmallCurves({ region, envelopes, height }: { region: RegionPart; envelopes: EnvelopePart[]; height: number }) {
  const pxPerTick = useSong((state) => state.view.pxPerTick);
  const windows = useSong((state) => state.preview?.windows[region.id] ?? state.windows[region.id]) ?? NO_WINDOWS;
  const curves = useSong((state) => state.curves);
  const trial = useSong((state) => state.preview?.curves);
  return (
    <svg className="pointer-events-none absolute top-2 left-0" width="100%" height={height - 8} aria-hidden="true">
      {envelopes.map((envelope) => {
        const band = bandFor(envelope.role, height - 8);
        const path = (windows[envelope.id] ?? [])
          .map((window) => windowPath(trial?.[envelope.id] ?? curves[envelope.id] ?? [], window, (tick, value) => [(tick - region.start_tick) * pxPerTick, valueToY(band, value)]))
          .join("");
        return <path key={envelope.id} d={path} className={`stitched ${envelope.on ? "" : "off-line"}`} style={{ ...hueStyle(parameterHue(envelope.target)), strokeWidth: 1.9, strokeDasharray: "0.1 3.6" }} />;
      })}
    </svg>
  );
}
