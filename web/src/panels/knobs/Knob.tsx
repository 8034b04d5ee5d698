import { Hand } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, memo, useState } from "react";
import type { Normalised, TrackPart } from "../../api/types";
import { heightAt } from "../../geometry/corners";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { drag } from "../../gestures/drag";
import { edit } from "../../state/actions";
import { previewer } from "../../state/previewer";
import { type Placed, knobValue, valueText } from "../../state/catalogue";
import { useSong } from "../../state/store";
import { EmbedButton } from "./EmbedButton";
import { focusOn } from "../../state/focus";
import { type Acting, actingWords } from "../../state/acting";

const START = 135;
const SWEEP = 270;
const RADIUS = 18;
/** A full turn takes this many pixels. */
const TRAVEL_PX = 170;

const polar = (degrees: number, radius: number): string => {
  const angle = (degrees * Math.PI) / 180;
  return `${(22 + radius * Math.cos(angle)).toFixed(2)} ${(22 + radius * Math.sin(angle)).toFixed(2)}`;
};
const arc = (from: Normalised, to: Normalised, radius: number): string => {
  const [a, b] = [Math.min(from, to), Math.max(from, to)];
  return `M${polar(START + SWEEP * a, radius)}A${radius} ${radius} 0 ${(b - a) * SWEEP > 180 ? 1 : 0} 1 ${polar(START + SWEEP * b, radius)}`;
};

interface Props {
  track: TrackPart;
  placed: Placed;
  acts: Acting;
  focused: boolean;
}

/** One parameter as a knob, or as a switch where it has two places. It shows what is heard at the playhead. */
export const Knob = memo(function Knob({ track, placed, acts, focused }: Props) {
  const { address, entry, scale } = placed;
  const resting = knobValue(track, placed);
  const [turned, setTurned] = useState<Normalised | null>(null);
  const rest = turned ?? resting;
  const held = track.devices.find((device) => device.id === placed.deviceId)?.held[entry.id] !== undefined;
  const automated = !held && (acts.clip === "on" || acts.lane === "on");
  const heard = useSong((state) => {
    const corners = automated ? (state.preview?.heard[address] ?? state.heard[address]) : undefined;
    return corners ? heightAt(corners, state.playhead) : null;
  });
  const exact = useSong((state) => (automated || held ? state.exact[address] : undefined));
  const value = turned ?? exact?.[0] ?? heard ?? rest;
  const step = scale.steps ? 1 / scale.steps : 0.01;
  const set = (next: Normalised) => void edit("set_knob", { address, value: Math.min(Math.max(next, 0), 1) });

  const press = (event: PointerEvent) => {
    focusOn(address);
    const trial = previewer();
    const wish = (dy: number) => Math.min(Math.max(resting - dy / TRAVEL_PX, 0), 1);
    const done = () => setTurned(null);
    drag(event, {
      move: ({ dy }) => {
        setTurned(wish(dy));
        trial.ask("set_knob", { address, value: wish(dy) });
      },
      drop: ({ dy, moved }) => {
        trial.end(moved);
        if (moved) void edit("set_knob", { address, value: wish(dy) }).then(done);
        else if (scale.steps === 1) set(1 - resting);
      },
      cancel: () => {
        trial.end(false);
        done();
      },
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const turn = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key];
    const pace = event.shiftKey && !scale.steps ? 0.1 : 1;
    if (turn) set(rest + turn * step * pace);
    else if (event.key === "Home") set(0);
    else if (event.key === "End") set(1);
    else if (event.key === "Delete") set(entry.default);
    else if ((event.key === "Enter" || event.key === " ") && scale.steps === 1) set(1 - resting);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const words = held ? "held" : actingWords(acts);
  return (
    <div className="group relative flex w-[70px] flex-col items-center" style={hueStyle(parameterHue(address))} data-testid={`knob-${address}`}>
      <div
        role="slider"
        tabIndex={0}
        aria-label={`${entry.name}${held ? ", held by hand" : words ? `, moved by ${words}` : ""}`}
        aria-valuemin={0}
        aria-valuemax={1}
        aria-valuenow={Number(value.toFixed(4))}
        aria-valuetext={valueText(scale, value)}
        title={entry.automatable ? `${entry.name}: rests at ${valueText(scale, rest)}. Double-click for the default.` : `${entry.name} cannot be automated: ${entry.reason}`}
        className={`touch-none cursor-ns-resize rounded-full ${focused ? "bg-base-300" : ""}`}
        onPointerDown={press}
        onDoubleClick={() => set(entry.default)}
        onKeyDown={onKey}
        onFocus={() => focusOn(address)}
      >
        <svg width={44} height={44} aria-hidden="true">
          <path d={arc(0, 1, RADIUS)} fill="none" stroke="var(--color-base-300)" strokeWidth={4} strokeLinecap="round" />
          {acts.lane && <path d={arc(0, 1, RADIUS)} className={`solid-line ${acts.lane === "off" ? "off-line" : ""}`} strokeWidth={1.6} />}
          <path d={arc(scale.origin, value, RADIUS - (acts.lane ? 4 : 0))} fill="none" stroke={automated ? "var(--hue)" : "var(--faint)"} strokeWidth={4} strokeLinecap="round" />
          {held && <path d={arc(0, 1, RADIUS - 2)} className="hatched" strokeWidth={9} data-testid={`held-${address}`} />}
          {acts.clip && <path d={arc(0, 1, 13)} className={`stitched ${acts.clip === "off" ? "off-line" : ""}`} strokeWidth={2} />}
          <path d={`M${polar(START + SWEEP * value, 3)}L${polar(START + SWEEP * value, 12)}`} stroke="currentColor" strokeWidth={2.2} strokeLinecap="round" />
          {automated && <circle cx={polar(START + SWEEP * rest, RADIUS + 2).split(" ")[0]} cy={polar(START + SWEEP * rest, RADIUS + 2).split(" ")[1]} r={2} fill="var(--faint)" />}
        </svg>
      </div>
      <span className="max-w-full truncate text-[11.5px] leading-4">{entry.name}</span>
      <span className={`text-[11px] leading-4 ${automated ? "hue font-semibold" : "faint"}`} data-testid={`value-${address}`}>
        {turned === null && exact ? exact[1] : valueText(scale, value)}
      </span>
      <span className="hue h-3.5 text-[10.5px] leading-3">{words}</span>
      {held && (
        <button type="button" className="btn btn-circle btn-xs absolute -top-1 left-0" style={{ borderColor: "var(--hue)", color: "var(--hue)" }} title={`Hand ${entry.name} back to what moves it`} aria-label={`Hand ${entry.name} back`} onClick={() => void edit("hand_back", { addresses: [address] })}>
          <Hand size={12} />
        </button>
      )}
      <EmbedButton placed={placed} acts={acts} focused={focused} />
    </div>
  );
});
