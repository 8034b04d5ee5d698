import { type PointerEvent, useRef } from "react";
import type { Normalised } from "../../api/types";
import { giveUp, release, standsAt, touch, turn, turnBriefly } from "../../gestures/hands";
import { usePad } from "../../state/pad";
import { usePerforming } from "../../state/performing";
import { useSong } from "../../state/song";
import { useTransport } from "../../state/transport";
import { Trail } from "./Trail";

const PAD = "the pad";
const STEP = 0.02;
const clamped = (value: number): Normalised => Math.min(Math.max(value, 0), 1);

/** A pad that turns two parameters at once: one across, one up. */
export function XYPad() {
  const { x, y } = usePad();
  const box = useRef<HTMLDivElement>(null);
  const finger = useRef<number | null>(null);
  const both = [x, y].filter((address) => address !== null);
  const at = (event: PointerEvent): [Normalised, Normalised] => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    return [clamped((event.clientX - left) / width), clamped(1 - (event.clientY - top) / height)];
  };
  const put = (event: PointerEvent) => {
    const [across, up] = at(event);
    if (x) turn(x, across, PAD, event.timeStamp);
    if (y) turn(y, up, PAD, event.timeStamp);
  };
  const down = (event: PointerEvent) => {
    if (event.button !== 0 || finger.current !== null) return;
    finger.current = event.pointerId;
    event.currentTarget.setPointerCapture?.(event.pointerId);
    for (const address of both) touch(address, PAD, event.timeStamp);
    put(event);
  };
  const up = (event: PointerEvent, kept: boolean) => {
    if (finger.current !== event.pointerId) return;
    finger.current = null;
    for (const address of both) kept ? release(address, PAD, event.timeStamp) : giveUp(address, PAD);
  };
  return (
    <div
      ref={box}
      className="pad"
      role="group"
      aria-label="Pad"
      data-testid="pad"
      onPointerDown={down}
      onPointerMove={(event) => finger.current === event.pointerId && put(event)}
      onPointerUp={(event) => up(event, true)}
      onPointerCancel={(event) => up(event, false)}
    >
      {x && <AxisKeys address={x} words="across" />}
      {y && <AxisKeys address={y} words="up" />}
      <Trail x={x} y={y} />
      <Dot x={x} y={y} />
      {both.length === 0 && <p className="faint p-2 text-center text-xs">Choose what it turns across and up.</p>}
    </div>
  );
}

/** One axis for the keyboard: arrows turn it. */
function AxisKeys({ address, words }: { address: string; words: string }) {
  const stands = useStanding(address);
  return (
    <input
      type="range"
      className="sr-only"
      min={0}
      max={1}
      step={STEP}
      value={stands}
      aria-label={`Pad, ${words}`}
      onChange={(event) => turnBriefly(address, Number(event.target.value), PAD)}
    />
  );
}

/** Where both stand: a knob with a needle across and up. */
function Dot({ x, y }: { x: string | null; y: string | null }) {
  const [across, up] = [useStanding(x), useStanding(y)];
  if (!x && !y) return null;
  return (
    <>
      {x && <i className="pad-line" style={{ left: `${across * 100}%`, top: 0, bottom: 0, width: 1 }} />}
      {y && <i className="pad-line" style={{ bottom: `${up * 100}%`, left: 0, right: 0, height: 1 }} />}
      <b className="pad-dot" style={{ left: `${across * 100}%`, bottom: `${up * 100}%` }} />
    </>
  );
}

/** Where a parameter stands: in a hand, as it is heard, or on its knob. */
function useStanding(address: string | null): Normalised {
  usePerforming((state) => (address ? state.hands[address] : undefined));
  useSong((state) => state.revision + state.exact[address ?? ""]?.[0]);
  useTransport((state) => state.playhead);
  return address ? clamped(standsAt(address)) : 0.5;
}
