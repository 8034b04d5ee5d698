import { Hand } from "lucide-react";
import { type KeyboardEvent, memo, type PointerEvent, useRef, useState } from "react";
import type { Normalised, TrackPart } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { drag } from "../../gestures/drag";
import { type Acting, actingWords } from "../../state/acting";
import { knobValue, type Placed } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { focusOn } from "../../state/focus";
import { previewer } from "../../state/previewer";
import { useReading } from "../../state/reading";
import { setSong, useSong } from "../../state/song";
import { useTransport } from "../../state/transport";
import { EmbedButton } from "./EmbedButton";
import { heardNow, KnobFace } from "./KnobFace";

/** A full turn takes this many pixels. */
const TRAVEL_PX = 170;

/** What is heard: while the playhead stands as the core says it, else as the curve has it. */
function useHeard(address: string, automated: boolean): Normalised | null {
  const still = useTransport((state) => (state.playing ? null : state.playhead));
  const exact = useSong((state) => state.exact[address]?.[0]);
  useSong((state) => (automated ? (state.preview?.heard[address] ?? state.heard[address]) : undefined));
  if (!automated) return null;
  return (still === null ? null : exact) ?? heardNow(address);
}

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
  const heard = useHeard(address, automated);
  const exact = useSong((state) => state.exact[address]);
  const reading = useReading(turned === null ? null : { address, value: turned });
  const text = turned === null ? (exact?.[1] ?? "") : reading;
  const textNow = useRef<[Normalised, string] | null>(null);
  textNow.current = turned === null ? null : [turned, reading];
  const value = turned ?? heard ?? rest;
  const step = scale.steps ? 1 / scale.steps : 0.01;
  const set = (next: Normalised) => void edit("set_knob", { address, value: Math.min(Math.max(next, 0), 1) });

  const press = (event: PointerEvent) => {
    focusOn(address);
    const trial = previewer();
    const wish = (dy: number) => Math.min(Math.max(resting - dy / TRAVEL_PX, 0), 1);
    const done = () => {
      const known = textNow.current;
      if (known) setSong(({ exact }) => ({ exact: { ...exact, [address]: known } }));
      setTurned(null);
    };
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
    <div
      className="group relative flex w-[70px] flex-col items-center"
      style={hueStyle(parameterHue(address))}
      data-testid={`knob-${address}`}
    >
      <div
        role="slider"
        tabIndex={0}
        aria-label={`${entry.name}${held ? ", held by hand" : words ? `, moved by ${words}` : ""}`}
        aria-valuemin={0}
        aria-valuemax={1}
        aria-valuenow={Number(value.toFixed(4))}
        aria-valuetext={text}
        title={
          entry.automatable
            ? `${entry.name}: drag up or down; a double press brings the default back`
            : `${entry.name} cannot be automated: ${entry.reason}`
        }
        className={`touch-pan-x cursor-ns-resize rounded-full ${focused ? "bg-base-300" : ""}`}
        onPointerDown={press}
        onDoubleClick={() => set(entry.default)}
        onKeyDown={onKey}
        onFocus={() => focusOn(address)}
      >
        <KnobFace
          address={address}
          value={value}
          rest={rest}
          origin={scale.origin}
          acts={acts}
          automated={automated}
          held={held}
        />
      </div>
      <span className="max-w-full truncate text-xs leading-4">{entry.name}</span>
      <span
        className={`text-xs leading-4 ${automated ? "hue font-semibold" : "faint"}`}
        data-testid={`value-${address}`}
      >
        {text}
      </span>
      <span className="hue h-3.5 text-xs leading-3">{words}</span>
      {held && (
        <button
          type="button"
          className="embed btn btn-circle btn-xs absolute -top-1 left-0"
          style={{ borderColor: "var(--hue)", color: "var(--hue)" }}
          title={`Hand ${entry.name} back to what moves it`}
          aria-label={`Hand ${entry.name} back`}
          onClick={() => void edit("hand_back", { addresses: [address] })}
        >
          <Hand size={12} />
        </button>
      )}
      <EmbedButton placed={placed} acts={acts} focused={focused} />
    </div>
  );
});
