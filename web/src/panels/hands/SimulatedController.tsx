import { type PointerEvent, useEffect, useRef, useState } from "react";
import { tellAgain } from "../../gestures/feedback";
import { simulatedKeyboard } from "../../gestures/inputs";
import { bendBytes, controllerBytes, noteBytes } from "../../gestures/midi/writer";

/** Controller numbers as they leave the works: knobs, faders, buttons; the pad across and up. */
const KNOBS = 20;
const FADERS = 102;
const BUTTONS = 110;
const [PAD_X, PAD_Y] = [118, 119];
const MOD_WHEEL = 1;
/** The status of a controller message on the first channel. */
const CONTROLLER = 0xb0;
const EIGHT = [0, 1, 2, 3, 4, 5, 6, 7];
const KEYS = Array.from({ length: 13 }, (_, i) => 48 + i);

const send = (bytes: number[]) => simulatedKeyboard.send(bytes);

/** A controller without a body: eight knobs, faders and buttons, two wheels, a pad and keys, which send MIDI. */
export function SimulatedController() {
  useEffect(tellAgain, []);
  return (
    <div className="simulated" role="group" aria-label="Simulated controller">
      <div className="sim-grid">
        <span className="faint text-xs">knobs</span>
        {EIGHT.map((i) => (
          <Throw
            key={i}
            name={`Knob ${i + 1}`}
            number={KNOBS + i}
            put={(value) => send(controllerBytes(0, KNOBS + i, value))}
          />
        ))}
        <span className="faint text-xs">faders</span>
        {EIGHT.map((i) => (
          <Throw
            key={i}
            name={`Fader ${i + 1}`}
            number={FADERS + i}
            put={(value) => send(controllerBytes(0, FADERS + i, value))}
          />
        ))}
        <span className="faint text-xs">buttons</span>
        {EIGHT.map((i) => (
          <button
            key={i}
            type="button"
            className="btn btn-xs pointer-coarse:h-11"
            aria-label={`Button ${i + 1}`}
            onPointerDown={() => send(controllerBytes(0, BUTTONS + i, 1))}
            onPointerUp={() => send(controllerBytes(0, BUTTONS + i, 0))}
          >
            {i + 1}
          </button>
        ))}
      </div>
      <div className="flex w-16 flex-col gap-1 text-xs">
        <span className="faint">pitch wheel</span>
        <Throw name="Pitch wheel" start={0.5} springs put={(value) => send(bendBytes(0, value))} />
        <span className="faint">mod wheel</span>
        <Throw name="Mod wheel" put={(value) => send(controllerBytes(0, MOD_WHEEL, value))} />
      </div>
      <SimulatedPad />
      <div className="flex items-end gap-0.5" role="group" aria-label="Keys of the simulated controller">
        {KEYS.map((key) => (
          <button
            key={key}
            type="button"
            className="sim-key"
            aria-label={`Key ${key}`}
            onPointerDown={() => send(noteBytes(0, key, true))}
            onPointerUp={() => send(noteBytes(0, key, false))}
            onPointerLeave={() => send(noteBytes(0, key, false))}
          />
        ))}
      </div>
    </div>
  );
}

interface ThrowProps {
  name: string;
  /** The controller number by which it is moved as motor faders are; none for wheels. */
  number?: number;
  start?: number;
  /** Whether it goes back when it is let go. */
  springs?: boolean;
  put: (value: number) => void;
}

/** One control with a way to go. */
function Throw({ name, number, start = 0, springs = false, put }: ThrowProps) {
  const [value, setValue] = useState(start);
  useEffect(() => {
    const moved = ({ detail }: CustomEventInit<{ bytes: number[] }>) => {
      if (detail && detail.bytes[0] === CONTROLLER && detail.bytes[1] === number) setValue(detail.bytes[2] / 127);
    };
    window.addEventListener("satchel-feedback", moved);
    return () => window.removeEventListener("satchel-feedback", moved);
  }, [number]);
  const go = (next: number) => {
    setValue(next);
    put(next);
  };
  return (
    <input
      type="range"
      className="range range-xs pointer-coarse:h-11"
      min={0}
      max={1}
      step={1 / 127}
      value={value}
      aria-label={name}
      title={name}
      onChange={(event) => go(Number(event.target.value))}
      onPointerUp={() => springs && go(start)}
    />
  );
}

function SimulatedPad() {
  const held = useRef(false);
  const put = (event: PointerEvent) => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    send(controllerBytes(0, PAD_X, (event.clientX - left) / width));
    send(controllerBytes(0, PAD_Y, 1 - (event.clientY - top) / height));
  };
  return (
    <div
      className="pad pad-small"
      role="img"
      aria-label="Pad of the simulated controller"
      onPointerDown={(event) => {
        held.current = true;
        event.currentTarget.setPointerCapture?.(event.pointerId);
        put(event);
      }}
      onPointerMove={(event) => held.current && put(event)}
      onPointerUp={() => {
        held.current = false;
      }}
    />
  );
}
