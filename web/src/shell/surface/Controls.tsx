import { clsx } from "clsx";
import { type PointerEvent, useRef } from "react";
import type { SurfaceEntry, SurfaceState } from "../../api/handsSocket";
import { hueStyle } from "../../geometry/hue";
import { hand, useSurfaceView } from "../../state/surfaceView";
import { keyed, useGrip } from "./useGrip";

/** So far a finger goes from one end of a knob to the other. */
const KNOB_TRAVEL = 220;
const FADER_TRAVEL = 300;

/** A knob for a finger: a bar that fills as it goes up; a switch where it has two places. */
export function BigKnob({ entry }: { entry: SurfaceEntry }) {
  const { value, held, press } = useGrip(entry, KNOB_TRAVEL);
  return (
    <Control entry={entry} value={value} held={held} press={press} look="surface-knob">
      <i className="surface-fill" style={{ height: `${value * 100}%` }} />
    </Control>
  );
}

export function BigFader({ entry }: { entry: SurfaceEntry }) {
  const { value, held, press } = useGrip(entry, FADER_TRAVEL);
  return (
    <Control entry={{ ...entry, name: entry.owner }} value={value} held={held} press={press} look="surface-fader">
      <i className="surface-fill" style={{ height: `${value * 100}%` }} />
      <b className="surface-handle" style={{ bottom: `calc(${value * 100}% - ${value * 28}px)` }} />
    </Control>
  );
}

interface ControlProps {
  entry: SurfaceEntry;
  value: number;
  held: boolean;
  press: ReturnType<typeof useGrip>["press"];
  look: string;
  children: React.ReactNode;
}

function Control({ entry, value, held, press, look, children }: ControlProps) {
  return (
    <div
      role="slider"
      tabIndex={0}
      className={clsx(look, held && "surface-held", entry.state === "writing" && "surface-written")}
      style={hueStyle(entry.hue)}
      aria-label={`${entry.name}${entry.state ? `, ${entry.state}` : ""}`}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={1}
      aria-valuenow={Number(value.toFixed(3))}
      aria-valuetext={entry.text || undefined}
      data-testid={`surface-${entry.a}`}
      onKeyDown={keyed(entry, value)}
      {...press}
    >
      {children}
      <span className="surface-name">{entry.name}</span>
      <span className="surface-state">{entry.state}</span>
      <span className="surface-text">{entry.text}</span>
    </div>
  );
}

/** Two at once: one across, one up. */
export function BigPad({ pad: { x, y } }: { pad: SurfaceState["pad"] }) {
  const held = useSurfaceView((state) => state.held);
  const finger = useRef<number | null>(null);
  const both = [x, y].filter((entry) => entry !== null);
  const value = (entry: SurfaceEntry | null) => (entry ? (held[entry.a] ?? entry.v) : 0.5);
  const put = (event: PointerEvent, t: "turn" | "release") => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    if (x) hand(t, x.a, (event.clientX - left) / width, event.timeStamp);
    if (y) hand(t, y.a, 1 - (event.clientY - top) / height, event.timeStamp);
  };
  if (both.length === 0)
    return <p className="faint p-6 text-center">Choose on the desktop, under Hands, what the pad turns.</p>;
  return (
    <div
      role="group"
      aria-label="Pad"
      className="surface-pad"
      data-testid="surface-pad"
      onPointerDown={(event) => {
        if (finger.current !== null) return;
        finger.current = event.pointerId;
        event.currentTarget.setPointerCapture?.(event.pointerId);
        for (const entry of both) hand("touch", entry.a, value(entry), event.timeStamp);
        put(event, "turn");
      }}
      onPointerMove={(event) => finger.current === event.pointerId && put(event, "turn")}
      onPointerUp={(event) => {
        if (finger.current !== event.pointerId) return;
        finger.current = null;
        put(event, "release");
      }}
      onPointerCancel={(event) => {
        finger.current = null;
        put(event, "release");
      }}
    >
      <b className="pad-dot" style={{ left: `${value(x) * 100}%`, bottom: `${value(y) * 100}%` }} />
      {x && <span className="surface-across">{x.name} →</span>}
      {y && <span className="surface-up">↑ {y.name}</span>}
    </div>
  );
}
