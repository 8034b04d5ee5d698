import { useLayoutEffect, useRef } from "react";
import { createPortal } from "react-dom";
import type { Px } from "../../api/types";
import { songBox } from "../../state/stage";

/** So far above a mouse, and above a finger, which covers what is under it. */
const OVER: Px = 12;
const OVER_FINGER: Px = 56;
/** Kept free at the edges of the view. */
const EDGE: Px = 4;

interface Props {
  /** Where the hand is, in the strip. */
  x: Px;
  y: Px;
  text: string;
  finger?: boolean;
}

/** A few words beside the hand, over all else and inside the view; where a finger leaves no room, in the top bar. */
export function Words({ x, y, text, finger = false }: Props) {
  const anchor = useRef<SVGGElement>(null);
  const box = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    const strip = anchor.current?.ownerSVGElement?.getBoundingClientRect();
    const words = box.current;
    const view = songBox();
    if (!strip || !words || !view) return;
    const { width, height } = words.getBoundingClientRect();
    const [handX, handY] = [strip.left + x, strip.top + y];
    const left = Math.max(view.left + EDGE, Math.min(handX - width / 2, view.right - width - EDGE));
    words.style.left = `${left}px`;
    words.style.top = `${topFor(handY, height, finger, view.top)}px`;
  });
  return (
    <>
      <g ref={anchor} />
      {createPortal(
        <div ref={box} className="words" data-testid="words">
          {text}
        </div>,
        document.body,
      )}
    </>
  );
}

function topFor(handY: Px, height: Px, finger: boolean, viewTop: Px): Px {
  const above = handY - height - (finger ? OVER_FINGER : OVER);
  if (above >= viewTop) return above;
  return finger ? EDGE : handY + OVER + EDGE;
}
