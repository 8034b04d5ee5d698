import { clsx } from "clsx";
import { Hand } from "lucide-react";
import { type CSSProperties, type RefObject, useEffect, useId, useRef } from "react";
import type { Normalised, Px } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import type { Acting } from "../../state/acting";
import type { Owner, Placed } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { heardNow } from "../../state/heardNow";
import { useTransport } from "../../state/transport";
import { useArming } from "../../table/ArmButton";
import { EmbedButton } from "../knobs/EmbedButton";
import { stateWords } from "../knobs/stateWords";
import { type Axis, useTurning } from "../knobs/useTurning";

interface Props {
  owner: Owner;
  placed: Placed;
  acts: Acting;
  axis: Axis;
  /** How far the handle goes. */
  travel: Px;
  /** What it is called here. */
  name: string;
}

/** A parameter as a slide: a fader, or a short way across for pan and sends. It moves as heard while it plays. */
export function Slide({ owner, placed, acts, axis, travel, name }: Props) {
  const { address, entry, scale } = placed;
  const { value, rest, text, held, automated, press, onKey, type, menu, shower } = useTurning(
    owner,
    placed,
    acts,
    axis,
    travel,
  );
  const face = useRef<SVGSVGElement>(null);
  const far = axis === "up" ? "bottom" : "left";
  useEffect(() => {
    if (!automated) return;
    return useTransport.subscribe(({ playing }) => {
      const now = playing ? heardNow(address) : null;
      if (now !== null) face.current?.style.setProperty("--at", now.toFixed(4));
    });
  }, [address, automated]);
  const arming = useArming(address);
  return (
    <div
      className={`slide slide-${axis} group`}
      style={hueStyle(parameterHue(address))}
      data-testid={`slide-${address}`}
    >
      <div
        ref={shower}
        role="slider"
        tabIndex={0}
        className="slide-way"
        aria-label={`${name} of ${owner.name}${stateWords(arming, held, acts)}`}
        aria-orientation={axis === "up" ? "vertical" : "horizontal"}
        aria-valuemin={0}
        aria-valuemax={1}
        aria-valuenow={Number(value.toFixed(4))}
        aria-valuetext={text}
        title={`${name}: ${text}; a double press types a value, Delete brings the default back`}
        onPointerDown={press}
        onContextMenu={menu}
        onDoubleClick={type}
        data-shows={address}
        onKeyDown={onKey}
      >
        <i className="slide-rest" style={{ [far]: `${rest * 100}%` }} />
        {scale.origin > 0 && <i className="slide-origin" style={{ [far]: `${scale.origin * 100}%` }} />}
        <Handle ref={face} at={value} axis={axis} moved={automated} held={held} arming={arming} />
      </div>
      <span className={`slide-text ${automated ? "hue font-semibold" : "faint"}`}>
        {axis === "across" && <span className="faint truncate font-normal">{name}</span>}
        <span className="shrink-0">{text}</span>
      </span>
      <span className="slide-acts hue" aria-hidden="true">
        {acts.clip && <i className={`stitch-mark ${acts.clip === "off" ? "off-line" : ""}`} />}
        {acts.lane && <i className={`line-mark ${acts.lane === "off" ? "off-line" : ""}`} />}
      </span>
      {held && (
        <button
          type="button"
          className="slide-back"
          title={`Hand ${entry.name} back to what moves it`}
          aria-label={`Hand ${name} of ${owner.name} back`}
          onClick={() => void edit("hand_back", { addresses: [address] })}
        >
          <Hand size={12} />
        </button>
      )}
      <EmbedButton placed={placed} acts={acts} focused={false} />
    </div>
  );
}

interface HandleProps {
  ref: RefObject<SVGSVGElement | null>;
  /** From its start to its end, 0..1. */
  at: Normalised;
  axis: Axis;
  moved: boolean;
  held: boolean;
  arming: ReturnType<typeof useArming>;
}

/**
 * The handle, as dashes of lines along the way: where a dash begins is only painted again, while anything that moves as
 * a box has the whole page put into layers again, in every frame.
 */
function Handle({ ref, at, axis, moved, held, arming }: HandleProps) {
  const way = axis === "up" ? { x1: "50%", x2: "50%", y1: "100%", y2: 0 } : { x1: 0, x2: "100%", y1: "50%", y2: "50%" };
  const stripes = useId();
  return (
    <svg ref={ref} className="slide-face" style={{ "--at": at.toFixed(4) } as CSSProperties} aria-hidden="true">
      {arming && <line {...way} className={`slide-${arming}`} />}
      {arming && <line {...way} className="slide-gap" />}
      <line {...way} className={clsx("slide-edge", moved && "slide-moved")} />
      <line {...way} className="slide-fill" style={held ? { stroke: `url(#${stripes})` } : undefined} />
      {held && (
        <pattern id={stripes} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={5} height={5} fill="var(--color-base-100)" />
          <rect width={2} height={5} fill="var(--hue)" />
        </pattern>
      )}
    </svg>
  );
}
