import { useEffect, useRef } from "react";
import type { Normalised } from "../../api/types";
import type { Acting } from "../../state/acting";
import { heardNow } from "../../state/heardNow";
import { useTransport } from "../../state/transport";

const START = 135;
const SWEEP = 270;
const RADIUS = 18;

const polar = (degrees: number, radius: number): string => {
  const angle = (degrees * Math.PI) / 180;
  return `${(22 + radius * Math.cos(angle)).toFixed(2)} ${(22 + radius * Math.sin(angle)).toFixed(2)}`;
};
const arc = (from: Normalised, to: Normalised, radius: number): string => {
  const [a, b] = [Math.min(from, to), Math.max(from, to)];
  const large = (b - a) * SWEEP > 180 ? 1 : 0;
  const [start, end] = [polar(START + SWEEP * a, radius), polar(START + SWEEP * b, radius)];
  return `M${start}A${radius} ${radius} 0 ${large} 1 ${end}`;
};

const needle = (value: Normalised): string => `M${polar(START + SWEEP * value, 3)}L${polar(START + SWEEP * value, 12)}`;

interface Props {
  address: string;
  value: Normalised;
  rest: Normalised;
  origin: Normalised;
  acts: Acting;
  automated: boolean;
  held: boolean;
  /** Whether it is armed, or being written now. */
  arming?: "armed" | "written" | null;
}

/** The dial of a knob. While it plays, its arc and needle follow the playhead by themselves. */
export function KnobFace({ address, value, rest, origin, acts, automated, held, arming }: Props) {
  const arcLine = useRef<SVGPathElement>(null);
  const needleLine = useRef<SVGPathElement>(null);
  const radius = RADIUS - (acts.lane ? 4 : 0);
  useEffect(() => {
    if (!automated) return;
    return useTransport.subscribe(({ playing }) => {
      const now = playing ? heardNow(address) : null;
      if (now === null) return;
      arcLine.current?.setAttribute("d", arc(origin, now, radius));
      needleLine.current?.setAttribute("d", needle(now));
    });
  }, [address, automated, origin, radius]);
  const [restX, restY] = polar(START + SWEEP * rest, RADIUS + 2).split(" ");
  return (
    <svg width={44} height={44} aria-hidden="true">
      <path d={arc(0, 1, RADIUS)} fill="none" stroke="var(--color-base-300)" strokeWidth={4} strokeLinecap="round" />
      {acts.lane && (
        <path
          d={arc(0, 1, RADIUS)}
          className={`solid-line ${acts.lane === "off" ? "off-line" : ""}`}
          strokeWidth={1.6}
        />
      )}
      <path
        ref={arcLine}
        d={arc(origin, value, radius)}
        fill="none"
        stroke={automated ? "var(--hue)" : "var(--faint)"}
        strokeWidth={4}
        strokeLinecap="round"
      />
      {arming && <path d={arc(0, 1, RADIUS + 2.5)} className={arming === "written" ? "written-ring" : "armed-ring"} />}
      {held && <path d={arc(0, 1, RADIUS - 2)} className="hatched" strokeWidth={9} data-testid={`held-${address}`} />}
      {acts.clip && (
        <path d={arc(0, 1, 13)} className={`stitched ${acts.clip === "off" ? "off-line" : ""}`} strokeWidth={2} />
      )}
      {acts.macro && <path d="M22 44V38M22 41L17 37M22 41L27 37" className="driven-fork" />}
      <path ref={needleLine} d={needle(value)} stroke="currentColor" strokeWidth={2.2} strokeLinecap="round" />
      {automated && <circle cx={restX} cy={restY} r={2} fill="var(--faint)" />}
    </svg>
  );
}
