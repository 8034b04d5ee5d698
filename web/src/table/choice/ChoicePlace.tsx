import { type ReactNode, useLayoutEffect, useRef, useState } from "react";
import type { Px } from "../../api/types";
import { roomForSong, tableBox } from "../../state/stage";

/** Between a bar and what it belongs to. */
const APART: Px = 4;

interface Props {
  /** Where the choice begins, from the start of the song. */
  left: Px;
  /** How tall the band is that holds it: the bar stands under it, or over it at the foot of the table. */
  height: Px;
  label: string;
  children: ReactNode;
}

/** A bar beside what is chosen, never on it, moved to the left where the view ends. */
export function ChoicePlace({ left, height, label, children }: Props) {
  const bar = useRef<HTMLDivElement>(null);
  const [place, setPlace] = useState<{ left: Px; over: boolean }>({ left, over: false });
  // Placed by what it belongs to; while the hand is on it, it stays.
  useLayoutEffect(() => {
    const table = tableBox();
    const box = bar.current;
    if (!table || !box || box.matches(":hover")) return;
    const band = box.parentElement?.getBoundingClientRect();
    const room = table.getBoundingClientRect().bottom;
    const most = table.scrollLeft + roomForSong() - box.offsetWidth - APART;
    setPlace({
      left: Math.max(table.scrollLeft + APART, Math.min(left, most)),
      over: band !== undefined && band.top + height + APART + box.offsetHeight > room,
    });
  }, [left, height]);
  const style = place.over ? { bottom: `calc(100% + ${APART}px)` } : { top: height + APART };
  return (
    <div
      ref={bar}
      className="choice-strip"
      style={{ ...style, left: place.left, maxWidth: roomForSong() }}
      role="group"
      aria-label={label}
    >
      {children}
    </div>
  );
}
