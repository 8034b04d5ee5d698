import { type PointerEvent, useRef } from "react";
import type { SurfaceEntry } from "../../api/handsSocket";
import { hand, useSurfaceView } from "../../state/surfaceView";

/** A finger on one parameter: where it stands, and what pointers do to it; `travel` is the way from bottom to top. */
export function useGrip(entry: SurfaceEntry, travel: number) {
  const held = useSurfaceView((state) => state.held[entry.a]);
  const grip = useRef<{ id: number; y: number; from: number } | null>(null);
  const value = held ?? entry.v;
  const at = (event: PointerEvent, { y, from }: { y: number; from: number }) => from + (y - event.clientY) / travel;
  return {
    value,
    held: held !== undefined,
    press: {
      onPointerDown: (event: PointerEvent) => {
        if (grip.current) return;
        event.currentTarget.setPointerCapture?.(event.pointerId);
        grip.current = { id: event.pointerId, y: event.clientY, from: value };
        hand("touch", entry.a, value, event.timeStamp);
        if (entry.steps === 1) hand("turn", entry.a, value < 0.5 ? 1 : 0, event.timeStamp);
      },
      onPointerMove: (event: PointerEvent) => {
        if (grip.current?.id === event.pointerId && entry.steps !== 1)
          hand("turn", entry.a, at(event, grip.current), event.timeStamp);
      },
      onPointerUp: (event: PointerEvent) => {
        if (grip.current?.id !== event.pointerId) return;
        grip.current = null;
        hand("release", entry.a, value, event.timeStamp);
      },
      onPointerCancel: (event: PointerEvent) => {
        if (grip.current?.id !== event.pointerId) return;
        grip.current = null;
        hand("release", entry.a, value, event.timeStamp);
      },
    },
  };
}

/** By arrow keys, as by a finger that takes hold and lets go at once. */
export const keyed =
  (entry: SurfaceEntry, value: number) => (event: { key: string; timeStamp: number; preventDefault(): void }) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    const step = entry.steps ? 1 / entry.steps : 0.02;
    hand("touch", entry.a, value, event.timeStamp);
    hand("turn", entry.a, value + by * step, event.timeStamp);
    hand("release", entry.a, value + by * step, event.timeStamp);
  };
